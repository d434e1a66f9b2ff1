import { vec3 } from 'gl-matrix';
import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { toWorld } from '../path/placement.js';

const SAME_PLACE = 1e-6;

/**
 * The path closed by its own basis, from the last point back to the first. A last point equal to the first is merged
 * with it; ends of a Bézier path without an outer handle get one that continues their inner one.
 */
export function closePath(path: ShotPath): ShotPath {
  if (path.closed) return path;
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  const first = active[0];
  const last = active[active.length - 1];
  const own = path.basis === 'nurbs' && path.knots !== null;
  if (first === undefined || first === last || own) return { ...path, closed: true };
  const places = [first, last].map((i) => toWorld(path.transform, path.points[i].position));
  const meet = active.length > 3 && vec3.distance(places[0], places[1]) < SAME_PLACE;
  const points = path.points.map((point, i): PathPoint => {
    if (path.basis !== 'bezier' || point.handles === 'auto') return point;
    if (i === first && meet) return { ...point, in: path.points[last].in };
    if (i === first && isZero(point.in)) return { ...point, in: opposite(point.out) };
    if (i === last && isZero(point.out)) return { ...point, out: opposite(point.in) };
    return point;
  });
  return { ...path, closed: true, points: meet ? points.filter((_, i) => i !== last) : points };
}

/** The path without the piece from its last point back to the first. */
export function openPath(path: ShotPath): ShotPath {
  return path.closed ? { ...path, closed: false } : path;
}

const isZero = (v: Vec3) => v.every((value) => value === 0);
const opposite = (v: Vec3): Vec3 => v.map((value) => -value || 0) as Vec3;
