export type { Quat, Vec3 } from '../../document/vector.js';

/** Anything three numbers can be read from or written to, plain or typed. */
export type Vec3Like = { [index: number]: number; length: number };

/** The distance between two points, metres. */
export function distance3(a: Vec3Like, b: Vec3Like): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
}
