import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';

/**
 * The height of the ground at a place of the plan, metres; null where there is none. Of several levels the
 * one nearest to `near` counts.
 */
export type GroundHeight = (x: number, z: number, near: number) => number | null;

/** One place of a height profile. */
export interface ProfilePoint {
  /** Metres along the path. */
  readonly distance: number;
  /** Metres: of the path, and of the ground under it; null where there is none. */
  readonly path: number;
  readonly ground: number | null;
}

/** Heights along a path at even distances, both ends included. */
export function heightProfile(curve: CompiledPath, ground: GroundHeight, count: number): ProfilePoint[] {
  const here: Vec3 = [0, 0, 0];
  return Array.from({ length: count }, (_, i) => {
    const distance = (curve.length * i) / (count - 1);
    curve.position(distance, here);
    return { distance, path: here[1], ground: ground(here[0], here[2], here[1]) };
  });
}
