import { lazy } from 'react';

/** What stands in the panel only while something is being made is loaded when it is first wanted: all of it, which is little. */
export const loadCards = () => import('./all-cards');

export const DrawSettings = lazy(async () => ({ default: (await loadCards()).DrawSettings }));
export const ImportCard = lazy(async () => ({ default: (await loadCards()).ImportCard }));
export const LaidCard = lazy(async () => ({ default: (await loadCards()).LaidCard }));
export const OperationCard = lazy(async () => ({ default: (await loadCards()).OperationCard }));
export const ShapeCard = lazy(async () => ({ default: (await loadCards()).ShapeCard }));
