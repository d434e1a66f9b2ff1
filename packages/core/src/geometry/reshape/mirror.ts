import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { mapPoints } from './transform-path.js';

/**
 * Mirror image of the path across the plane perpendicular to an axis. Left becomes right, so roll changes sign.
 *
 * @param axis 0 for X, 1 for Y, 2 for Z
 * @param at   where the plane stands on the axis, metres
 */
export function mirrorPath(path: ShotPath, axis: 0 | 1 | 2, at: number): ShotPath {
  const mirrored = mapPoints(path, (world) => mirroredPosition(world, axis, at));
  return { ...mirrored, points: mirrored.points.map((point) => ({ ...point, roll: -point.roll || 0 })) };
}

/** The mirror image of a place. */
export function mirroredPosition(place: Vec3, axis: 0 | 1 | 2, at: number): Vec3 {
  const out: Vec3 = [...place];
  out[axis] = 2 * at - out[axis];
  return out;
}
