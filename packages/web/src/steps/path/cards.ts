import { lazy } from 'react';
import { loadCards } from './load-cards';

// Loaded when the first of them is wanted.
export const DrawSettings = lazy(async () => ({ default: (await loadCards()).DrawSettings }));
export const ImportCard = lazy(async () => ({ default: (await loadCards()).ImportCard }));
export const LaidCard = lazy(async () => ({ default: (await loadCards()).DressingCard }));
export const OperationCard = lazy(async () => ({ default: (await loadCards()).OperationCard }));
export const ShapeCard = lazy(async () => ({ default: (await loadCards()).ShapeCard }));
