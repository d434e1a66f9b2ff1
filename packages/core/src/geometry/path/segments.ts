import type { Vec3Like } from '../math/vec.js';

/**
 * The common form of every basis: a run of (rational) polynomial pieces, each over u from 0 to 1.
 * All derivatives are with respect to u and exact. No question allocates.
 */
export interface Segments {
  readonly count: number;
  /** The position on segment i, metres. */
  position(i: number, u: number, out: Vec3Like): void;
  /** The position into three numbers from `out[at]`, the first derivative into three from `out[at + 9]`. */
  place(i: number, u: number, out: Float64Array, at: number): void;
  /** The first derivative on segment i, metres per unit of u. */
  velocity(i: number, u: number, out: Vec3Like): void;
  /** The derivative of the second or third order on segment i. */
  derivative(i: number, u: number, order: 2 | 3, out: Vec3Like): void;
  /** |dr/du| on segment i. */
  speed(i: number, u: number): number;
  /** d|dr/du|/du on segment i; 0 where the speed itself is 0. */
  speedSlope(i: number, u: number): number;
}

/** A path parameter is segment + u; this splits it so that the very end stays on the last segment. */
export function segmentOf(segments: Segments, parameter: number): number {
  return Math.min(segments.count - 1, Math.max(0, Math.floor(parameter)));
}
