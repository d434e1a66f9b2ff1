import type { Vec3 } from '@fleet-rail/core';

/** A number on the grid nearest to it; without a grid it is kept to a millimetre. */
export function snapTo(value: number, grid: number): number {
  if (grid <= 0) return Math.round(value * 1000) / 1000 + 0;
  // Divided by whole numbers, so that steps of a tenth are written as such.
  return Math.round(value / grid) / Math.round(1 / grid) + 0;
}

/**
 * A place straight on from another, in one of the eight directions of a plane nearest to where it is.
 *
 * @param plane which coordinates lie in the plane
 * @param grid  the run's length is a multiple of this, metres; diagonals take a step of it both ways
 */
export function snapDirection(
  from: Vec3,
  to: Vec3,
  plane: readonly [boolean, boolean, boolean],
  grid: number,
): Vec3 {
  const [a, b] = [0, 1, 2].filter((k) => plane[k]);
  const [da, db] = [to[a] - from[a], to[b] - from[b]];
  const eighth = Math.round(Math.atan2(db, da) / (Math.PI / 4));
  const angle = eighth * (Math.PI / 4);
  const along = da * Math.cos(angle) + db * Math.sin(angle);
  const diagonal = eighth % 2 !== 0;
  const step = snapTo(diagonal ? along * Math.SQRT1_2 : along, grid);
  const out: Vec3 = [...from];
  const sign = (value: number) => (Math.abs(value) < 1e-9 ? 0 : Math.sign(value));
  out[a] = snapTo(from[a] + step * sign(Math.cos(angle)), 0);
  out[b] = snapTo(from[b] + step * sign(Math.sin(angle)), 0);
  return out;
}
