import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierForm } from './change-basis.js';
import { handlesKind } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { PathError } from '../path/path-error.js';
import { toLocal } from '../path/placement.js';
import { splitBezier } from './split-bezier.js';
import { insertKnot, knotAtDistance, nurbsPath, worldNet } from '../path/spline-knots.js';

/** A path with a point more, and where in its list that point is. */
export interface Inserted {
  readonly path: ShotPath;
  readonly index: number;
}

/** Places nearer to each other than this part of the length are one. */
const SAME_PLACE = 1e-9;

const plus = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/**
 * A point more at a distance along the path, the curve unchanged: straight runs are cut, Bézier pieces
 * split (de Casteljau), splines get a knot (Boehm) and become NURBS. A curve through points cannot take a
 * point without moving; it becomes the same curve as Bézier first.
 *
 * @param s metres; on a closed path also beyond its length
 * @throws PathError where the path has no curve, or has a point or knot there already
 */
export function insertPoint(path: ShotPath, s: number): Inserted {
  const curve = compilePath(path);
  if (path.basis === 'bspline' || path.basis === 'nurbs') return insertInSpline(path, curve, s);
  refuseTaken(path, curve.pointDistances, curve, s);
  if (path.basis === 'polyline') return insertInPolyline(path, curve, s);
  const explicit = bezierForm(path) as ShotPath;
  return insertInBezier(explicit, compilePath(explicit), s);
}

/** Two points in one place would be a piece that nothing can travel. */
function refuseTaken(path: ShotPath, taken: Iterable<number>, curve: CompiledPath, s: number): void {
  const at = curve.wrap(s);
  for (const place of taken) {
    const apart = Math.abs(place - at);
    if (Math.min(apart, curve.closed ? curve.length - apart : apart) > SAME_PLACE * curve.length) continue;
    throw new PathError(
      `Path "${path.name}" has a point at ${at.toFixed(2)} m already; expected a place between points.`,
    );
  }
}

/** The list indexes of the two active points around a place of a path whose pieces run from point to point. */
function around(
  path: ShotPath,
  curve: CompiledPath,
  s: number,
): { before: number; after: number; u: number } {
  const parameter = curve.parameter(s);
  const segment = Math.min(curve.segments.count - 1, Math.floor(parameter));
  const places = curve.pointDistances;
  const start = curve.segmentStart(segment);
  let n = 0;
  // Points in one place share a distance; the piece belongs to the last of them.
  for (let i = 0; i < places.length; i++) if (places[i] <= start + 1e-12 * curve.length) n = i;
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  return { before: active[n], after: active[(n + 1) % active.length], u: parameter - segment };
}

function insertInPolyline(path: ShotPath, curve: CompiledPath, s: number): Inserted {
  const { before } = around(path, curve, s);
  const world: Vec3 = [0, 0, 0];
  curve.position(s, world);
  const point: PathPoint = {
    ...path.points[before],
    position: toLocal(path.transform, world),
    in: [0, 0, 0],
    out: [0, 0, 0],
    roll: curve.rollDegrees(s),
  };
  return { path: { ...path, points: path.points.toSpliced(before + 1, 0, point) }, index: before + 1 };
}

function insertInBezier(path: ShotPath, curve: CompiledPath, s: number): Inserted {
  const { before, after, u } = around(path, curve, s);
  const from = path.points[before];
  const to = path.points[after];
  const piece: Bezier = [from.position, plus(from.position, from.out), plus(to.position, to.in), to.position];
  const [a, b] = splitBezier(piece, u);
  const into = minus(a[2], a[3]);
  const out = minus(b[1], b[0]);
  const point: PathPoint = {
    ...from,
    position: a[3],
    in: into,
    out,
    handles: handlesKind(into, out),
    roll: curve.rollDegrees(s),
  };
  const points = path.points.map((old, i) => {
    let changed = old;
    if (i === before) changed = withHandles(changed, changed.in, minus(a[1], a[0]));
    if (i === after) changed = withHandles(changed, minus(b[2], b[3]), changed.out);
    return changed;
  });
  return { path: { ...path, points: points.toSpliced(before + 1, 0, point) }, index: before + 1 };
}

function withHandles(point: PathPoint, into: Vec3, out: Vec3): PathPoint {
  return { ...point, in: into, out, handles: point.handles === 'corner' ? 'corner' : handlesKind(into, out) };
}

function insertInSpline(path: ShotPath, curve: CompiledPath, s: number): Inserted {
  const net = worldNet(path);
  const starts = Array.from({ length: curve.segments.count + 1 }, (_, i) => curve.segmentStart(i));
  refuseTaken(path, starts, curve, s);
  const knot = knotAtDistance(net, curve, s);
  const rolled = (distance: number) => curve.rollDegrees(distance);
  const built = nurbsPath(path, insertKnot(net, knot), path.closed, rolled);
  const places = compilePath(built).pointDistances;
  const apart = (i: number) => Math.abs(places[i] - curve.wrap(s));
  const index = places.reduce((best, _, i) => (apart(i) < apart(best) ? i : best), 0);
  return { path: built, index };
}
