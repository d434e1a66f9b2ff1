import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/**
 * Layout of a pose: position and rotation in the world, then the figures of the board. Every sampled channel, the CSV
 * and the stage read it by these names.
 */
export const POSE = {
  translation: 0,
  rotation: 3,
  /** Metres along the path. */
  distance: 7,
  /** Metres per second of the rider's own track, negative where it goes back. */
  speed: 8,
  /** Degrees, negative in a left turn. */
  bank: 9,
  size: 10,
} as const;

/** Writes a rider's pose at a (fractional) frame into `out[at …]`. */
export type PoseAt = (frame: number, out: Float64Array, at: number) => void;

/** Position of a pose, metres. */
export function positionIn(pose: ArrayLike<number>, at = 0): Vec3 {
  return [pose[at], pose[at + 1], pose[at + 2]];
}

/** How a pose is turned: a unit quaternion. */
export function rotationIn(pose: ArrayLike<number>, at = 0): Quat {
  const from = at + POSE.rotation;
  return [pose[from], pose[from + 1], pose[from + 2], pose[from + 3]];
}
