import { vec3 } from 'gl-matrix';
import { withoutDust } from '../../document/dust.js';
import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { toWorld } from './placement.js';

/** A point that takes part in the curve, in world space. */
export interface ActivePoint {
  readonly position: Vec3;
  /** End of its handle on one side, in world space: 1 for the outgoing one, −1 for the incoming one. */
  handleEnd(side: 1 | -1): Vec3;
  readonly source: PathPoint;
}

/** The points that are not switched off, with the path's transform applied. */
export function activePoints(path: ShotPath): ActivePoint[] {
  const place = (local: Vec3): Vec3 => toWorld(path.transform, local).map(withoutDust) as Vec3;
  const result: ActivePoint[] = [];
  path.points.forEach((source) => {
    if (source.off) return;
    const { position } = source;
    result.push({
      source,
      position: place(position),
      // Most curves have none, and a path may have thousands of points.
      handleEnd: (side) => place(vec3.add([0, 0, 0], position, side === 1 ? source.out : source.in) as Vec3),
    });
  });
  return result;
}

/** Points without exact repetitions of the one before. */
export function distinctPoints(points: readonly ActivePoint[], closed: boolean): ActivePoint[] {
  const same = (a: ActivePoint, b: ActivePoint) => vec3.exactEquals(a.position, b.position);
  const result = points.filter((point, i) => i === 0 || !same(point, points[i - 1]));
  while (closed && result.length > 1 && same(result[0], result[result.length - 1])) result.pop();
  return result;
}
