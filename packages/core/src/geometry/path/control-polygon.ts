import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { activePoints } from './active-points.js';
import { handleEnd } from './basis-bezier.js';

/** Control lines of a path's curve: the handles of a Bézier path, or the straight runs between control points. */
export interface ControlPolygon {
  /** From one end to the other of each straight run, in the world. */
  readonly runs: readonly (readonly [Vec3, Vec3])[];
  /** By index in the list of points the ends of a Bézier point's handles as they act; null for other points. */
  readonly handles: readonly (readonly [Vec3, Vec3] | null)[];
}

/** Control polygon of a path; straight runs and curves through points have none. */
export function controlPolygon(path: ShotPath): ControlPolygon {
  const active = activePoints(path);
  const none = path.points.map(() => null);
  if (path.basis === 'polyline' || path.basis === 'through' || active.length < 2)
    return { runs: [], handles: none };
  if (path.basis === 'bezier') {
    let n = 0;
    const handles = path.points.map((point): [Vec3, Vec3] | null => {
      if (point.off) return null;
      const i = n++;
      return [handleEnd(active, i, path.closed, -1), handleEnd(active, i, path.closed, 1)];
    });
    const runs = active.flatMap(({ position }, i) => {
      const ends = [-1, 1].map((side) => handleEnd(active, i, path.closed, side as 1 | -1));
      return ends.map((end): [Vec3, Vec3] => [position, end]);
    });
    return { runs, handles };
  }
  const runs = active
    .slice(path.closed ? 0 : 1)
    .map(({ position }, i): [Vec3, Vec3] => [
      active[path.closed ? (i + active.length - 1) % active.length : i].position,
      position,
    ]);
  return { runs, handles: none };
}
