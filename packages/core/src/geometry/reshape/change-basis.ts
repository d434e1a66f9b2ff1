import type { Basis, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { activePoints, distinctPoints, type ActivePoint } from '../path/active-points.js';
import { handleEnd } from '../path/basis-bezier.js';
import { isRational } from '../path/basis-spline.js';
import { throughBeziers } from '../path/basis-through.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { deviation } from '../path/deviation.js';
import { elevateToCubic } from '../path/elevate.js';
import { fitSpline, fitThrough } from './fit-points.js';
import { spanBezier, splineNet, splineSpans } from '../path/spline-net.js';
import { thinCurve } from './thin.js';

/**
 * The path in another basis. Exact if both can express the curve: straight runs, curves through points and polynomial
 * splines of degree up to three as Bézier; all of these as NURBS; straight runs as a spline of degree 1. Else a fit.
 *
 * @param tolerance metres a fit may be away from the curve; above 0
 * @throws PathError where the path has no curve
 */
export function changeBasis(path: ShotPath, basis: Basis, tolerance: number): ShotPath {
  if (basis === path.basis) return path;
  if (basis === 'bezier') return bezierForm(path) ?? thinCurve(path, compilePath(path), tolerance);
  if (basis === 'nurbs') return nurbsForm(path);
  if (basis === 'bspline' && path.basis === 'polyline') return { ...path, basis, degree: 1, knots: null };
  const curve = compilePath(path);
  if (basis === 'bspline') return fitUntilClose(path, curve, tolerance, fitSpline);
  return fitUntilClose(path, curve, tolerance, (from, like, count) => fitThrough(from, like, count, basis));
}

/**
 * The same curve as a Bézier path with explicit handles, or null if cubic segments cannot express it. Points that are
 * switched off stay, if points and segments correspond.
 */
export function bezierForm(path: ShotPath): ShotPath | null {
  const points = activePoints(path);
  const pieces = exactPieces(path, points);
  if (pieces === null || pieces.length === 0) return null;
  const rolls = rollsOf(path, points);
  const built = bezierPath(path, pieces, path.closed, rolls);
  if (built.points.length !== points.length) return built;
  let next = 0;
  return { ...built, points: path.points.map((point) => (point.off ? point : built.points[next++])) };
}

function rollsOf(path: ShotPath, points: readonly ActivePoint[]): (i: number) => number {
  if (path.basis !== 'bspline' && path.basis !== 'nurbs') return (i) => points[i]?.source.roll ?? 0;
  const curve = compilePath(path);
  return (i) => curve.rollDegrees(curve.segmentStart(Math.min(i, curve.segments.count)));
}

function exactPieces(path: ShotPath, points: readonly ActivePoint[]): Bezier[] | null {
  const n = points.length;
  const { closed } = path;
  const pairs = (piece: (i: number, j: number) => Bezier) =>
    Array.from({ length: closed ? n : n - 1 }, (_, i) => piece(i, (i + 1) % n));
  switch (path.basis) {
    case 'bezier':
      return pairs((i, j) => [
        points[i].position,
        handleEnd(points, i, closed, 1),
        handleEnd(points, j, closed, -1),
        points[j].position,
      ]);
    case 'polyline':
      return pairs((i, j) => straight(points[i].position, points[j].position));
    case 'through':
      return throughBeziers(distinctPoints(points, closed), closed, path.alpha);
    default: {
      const net = splineNet(path, points);
      if (net.degree > 3 || isRational(net)) return null;
      return splineSpans(net).map((k) => elevateToCubic(spanBezier(net, k)));
    }
  }
}

/** A straight run as a cubic at even speed. */
export function straight(from: Vec3, to: Vec3): Bezier {
  const part = (t: number): Vec3 => [0, 1, 2].map((k) => from[k] + (to[k] - from[k]) * t) as Vec3;
  return [from, part(1 / 3), part(2 / 3), to];
}

/** Bézier pieces are a spline whose knots are as many fold as its degree: exact, handles and all. */
function nurbsForm(path: ShotPath): ShotPath {
  if (path.basis === 'bspline') {
    return { ...path, basis: 'nurbs', points: path.points.map((point) => ({ ...point, weight: 1 })) };
  }
  if (path.basis === 'polyline') return nurbsForm({ ...path, basis: 'bspline', degree: 1, knots: null });
  const bezier = bezierForm(path);
  if (bezier === null) return path;
  const points = bezier.points.filter((point) => !point.off);
  const curve = compilePath(bezier);
  const plus = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
  const count = bezier.closed ? points.length : points.length - 1;
  const controls = [{ ...points[0], weight: 1 }];
  const knots = [0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const from = points[i];
    const to = points[(i + 1) % points.length];
    controls.push(
      { ...from, position: plus(from.position, from.out), weight: 1 },
      { ...to, position: plus(to.position, to.in), weight: 1 },
      { ...to, weight: 1 },
    );
    knots.push(i + 1, i + 1, i + 1);
  }
  knots.push(count);
  const built: ShotPath = { ...path, basis: 'nurbs', degree: 3, knots, points: controls };
  const places = compilePath(built).pointDistances;
  const rolled = controls.map((point, i) => ({ ...point, roll: curve.rollDegrees(places[i]) }));
  return { ...built, points: rolled };
}

const MOST_POINTS = 2_000;

/** Doubles the points of a fit until it is within the tolerance, or as fine as is sensible. */
function fitUntilClose(
  path: ShotPath,
  curve: CompiledPath,
  tolerance: number,
  fit: (curve: CompiledPath, like: ShotPath, count: number) => ShotPath,
): ShotPath {
  let count = Math.max(4, Math.min(64, path.points.length));
  for (;;) {
    const built = fit(curve, path, count);
    if (count >= MOST_POINTS || deviation(curve, compilePath(built), tolerance) <= tolerance) return built;
    count = Math.min(MOST_POINTS, Math.ceil(count * 1.5));
  }
}
