import type { Vec3 } from '@fleet-rail/core';
import { showNumber } from '../../ui/quantity';

/** A place under the pointer in words; its height where the view shows heights, or it has one. */
export function coordinates([x, y, z]: Vec3, view: string): string {
  const height = view === 'side' || view === 'front' || Math.abs(y) > 5e-4 ? ` · y ${showNumber(y, 2)}` : '';
  return `x ${showNumber(x, 2)}${height} · z ${showNumber(z, 2)} m`;
}
