import { vec3 } from 'gl-matrix';
import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { handlesKind } from './bezier-path.js';
import { bezierForm } from './change-basis.js';
import { compilePath } from '../path/compile-path.js';
import { fitOneCubic } from './fit-cubics.js';
import { PathError } from '../path/path-error.js';
import { toLocal } from '../path/placement.js';

/**
 * The path without some of its points. A Bézier path's neighbours get handles of new lengths, so that the curve stays
 * as near as one segment can; a spline with its own knots loses the knot of the point.
 *
 * @param chosen indexes into the list of points
 */
export function deletePoints(path: ShotPath, chosen: ReadonlySet<number>): ShotPath {
  const kept = path.points.filter((_, i) => !chosen.has(i));
  if (path.basis === 'nurbs' && path.knots !== null) return withoutKnots(path, chosen, kept);
  if (path.basis !== 'bezier') return { ...path, points: kept };
  const active = kept.filter((point) => !point.off).length;
  return active < 2 ? { ...path, points: kept } : refitted(path, chosen);
}

function withoutKnots(path: ShotPath, chosen: ReadonlySet<number>, kept: PathPoint[]): ShotPath {
  const { degree } = path;
  if (kept.length < degree + 1) return { ...path, points: kept, knots: null };
  const knots = [...(path.knots as number[])];
  const most = knots.length - degree - 2;
  const gone = [...chosen].sort((a, b) => b - a);
  // The knot in the middle of those that shape the point, but never one of the repeated ones at the ends.
  for (const i of gone) {
    const middle = i + Math.ceil((degree + 1) / 2);
    knots.splice(Math.min(most - gone.indexOf(i), Math.max(degree + 1, middle)), 1);
  }
  return { ...path, points: kept, knots };
}

function refitted(path: ShotPath, chosen: ReadonlySet<number>): ShotPath {
  const explicit = bezierForm(path);
  if (explicit === null) return { ...path, points: path.points.filter((_, i) => !chosen.has(i)) };
  let curve;
  try {
    curve = compilePath(path);
  } catch (error) {
    if (!(error instanceof PathError)) throw error;
    return { ...path, points: path.points.filter((_, i) => !chosen.has(i)) };
  }
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  const place = new Map(active.map((i, n) => [i, curve.pointDistances[n]]));
  const points = explicit.points.map((point) => ({ ...point }));
  const stays = active.filter((i) => !chosen.has(i));
  const count = path.closed ? stays.length : stays.length - 1;
  for (let n = 0; n < count; n++) {
    const from = stays[n];
    const to = stays[(n + 1) % stays.length];
    if (active[(active.indexOf(from) + 1) % active.length] === to) continue;
    const s0 = place.get(from) as number;
    const s1 = place.get(to) as number;
    const end = s1 > s0 ? s1 : s1 + curve.length;
    const samples = new Float64Array(3 * 49);
    for (let k = 0; k < 49; k++)
      curve.position(s0 + ((end - s0) * k) / 48, samples.subarray(3 * k, 3 * k + 3));
    const start: Vec3 = [0, 0, 0];
    const finish: Vec3 = [0, 0, 0];
    curve.tangent(s0, start);
    curve.tangent(end - 1e-11 * curve.length, finish);
    const [p0, p1, p2, p3] = fitOneCubic(samples, start, finish);
    points[from].out = handle(path, p0, p1);
    points[to].in = handle(path, p3, p2);
    points[from].handles = corner(points[from]) ?? handlesKind(points[from].in, points[from].out);
    points[to].handles = corner(points[to]) ?? handlesKind(points[to].in, points[to].out);
  }
  const automatic = (i: number) => path.points[i].handles === 'auto' && points[i].handles !== 'corner';
  return {
    ...explicit,
    points: points
      // A point that was automatic and whose neighbours stay is left so.
      .map((point, i) => (automatic(i) && untouched(i, active, chosen, path.closed) ? path.points[i] : point))
      .filter((_, i) => !chosen.has(i)),
  };
}

const corner = (point: PathPoint) => (point.handles === 'corner' ? ('corner' as const) : null);

function untouched(
  i: number,
  active: readonly number[],
  chosen: ReadonlySet<number>,
  closed: boolean,
): boolean {
  const n = active.indexOf(i);
  if (n < 0) return true;
  return [-1, 1].every((side) => {
    const j = n + side;
    if (!closed && (j < 0 || j >= active.length)) return true;
    return !chosen.has(active[(j + active.length) % active.length]);
  });
}

function handle(path: ShotPath, point: Vec3, end: Vec3): Vec3 {
  return vec3.subtract([0, 0, 0], toLocal(path.transform, end), toLocal(path.transform, point)) as Vec3;
}
