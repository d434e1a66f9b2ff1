import type { ShotPath } from '../../document/shot-path.js';
import { compilePath } from '../path/compile-path.js';
import { bezierForm } from './change-basis.js';
import { insertPoint } from './insert-point.js';
import { clampedPart, knotAtDistance, netsEndToEnd, nurbsPath, worldNet } from '../path/spline-knots.js';
import { PathError } from '../path/path-error.js';
import { splineDomain, type SplineNet } from '../path/spline-net.js';

/** Distances nearer to an end than this part of the length count as the end itself. */
const END = 1e-9;

/**
 * An open path cut in two at a distance; both parts together are the same curve. Marks go with their part.
 *
 * @throws PathError where there is no curve, the path is closed, or the cut would leave nothing on one side
 */
export function splitPath(path: ShotPath, s: number): [ShotPath, ShotPath] {
  const curve = compilePath(path);
  if (path.closed)
    throw new PathError(`Path "${path.name}" is closed: it opens where it is cut, into one path.`);
  if (s <= END * curve.length || s >= (1 - END) * curve.length) {
    throw new PathError(`Path "${path.name}" ends at ${s.toFixed(2)} m: expected a cut between its ends.`);
  }
  const marks = (from: number, to: number) =>
    path.marks
      .filter(({ distance }) => (distance >= from || from === 0) && distance < to)
      .map((mark) => ({ ...mark, distance: mark.distance - from }));
  const [first, second] = isSpline(path) ? splitSpline(path, s) : splitAtPoint(path, s);
  return [
    { ...first, marks: marks(0, s) },
    { ...second, marks: marks(s, Infinity) },
  ];
}

const isSpline = (path: ShotPath) => path.basis === 'bspline' || path.basis === 'nurbs';

function splitAtPoint(path: ShotPath, s: number): [ShotPath, ShotPath] {
  const { path: whole, index } = pointAt(spelledOut(path), s);
  return [
    { ...whole, points: whole.points.slice(0, index + 1) },
    { ...whole, points: whole.points.slice(index) },
  ];
}

/** The same curve such that no point's part of it depends on points beyond its neighbours' handles. */
function spelledOut(path: ShotPath): ShotPath {
  return path.basis === 'polyline' ? path : (bezierForm(path) as ShotPath);
}

function splitSpline(path: ShotPath, s: number): [ShotPath, ShotPath] {
  const curve = compilePath(path);
  const net = worldNet(path);
  const [from, to] = splineDomain(net);
  const cut = knotAtDistance(net, curve, s);
  const roll = (start: number) => (distance: number) => curve.rollDegrees(start + distance);
  return [
    nurbsPath(path, clampedPart(net, from, cut), false, roll(0)),
    nurbsPath(path, clampedPart(net, cut, to), false, roll(s)),
  ];
}

/** The path with a point at a distance: an existing one, or a new one. */
function pointAt(path: ShotPath, s: number): { path: ShotPath; index: number } {
  const curve = compilePath(path);
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  const near = curve.pointDistances.findIndex((place) => Math.abs(place - s) <= END * curve.length);
  return near >= 0 ? { path, index: active[near] } : insertPoint(path, s);
}

/**
 * A closed path that begins and ends at a distance: opened there, or still closed with its first point there. The
 * curve is unchanged; marks keep their positions.
 *
 * @throws PathError where there is no curve or the path is open
 */
export function startPathAt(path: ShotPath, s: number, closed: boolean): ShotPath {
  const curve = compilePath(path);
  if (!path.closed) throw new PathError(`Path "${path.name}" is open: its first point is its end.`);
  const start = curve.wrap(s);
  const marks = path.marks.map((mark) => ({ ...mark, distance: curve.wrap(mark.distance - start) }));
  const roll = (distance: number) => curve.rollDegrees(start + distance);
  if (isSpline(path)) return { ...nurbsPath(path, roundFrom(path, start), closed, roll), marks };
  const { path: whole, index } = pointAt(closed ? path : spelledOut(path), start);
  const points = [...whole.points.slice(index), ...whole.points.slice(0, index)];
  return { ...whole, closed, marks, points: closed ? points : [...points, points[0]] };
}

/**
 * A closed path that begins at another of its points, and the former distance of that start. A point that only pulls
 * at the curve begins it where the curve comes nearest to its pull.
 *
 * @throws PathError where there is no curve or the path is open
 */
export function chooseFirst(path: ShotPath, index: number): { path: ShotPath; start: number } {
  const curve = compilePath(path);
  const n = path.points.slice(0, index).filter((point) => !point.off).length;
  const uniform = isSpline(path) && (path.basis === 'bspline' || path.knots === null);
  if (!uniform || !path.closed) {
    const start = curve.pointDistances[n % curve.pointDistances.length];
    return { path: startPathAt(path, start, true), start };
  }
  // A periodic spline has a span a point: begun a point later it is the same curve begun a span later.
  const start = curve.segmentStart(n);
  const marks = path.marks.map((mark) => ({ ...mark, distance: curve.wrap(mark.distance - start) }));
  const points = [...path.points.slice(index), ...path.points.slice(0, index)];
  return { path: { ...path, points, marks }, start };
}

/** Once round a closed spline from a distance. */
function roundFrom(path: ShotPath, start: number): SplineNet {
  const curve = compilePath(path);
  const net = worldNet(path);
  const [from, to] = splineDomain(net);
  const knot = knotAtDistance(net, curve, start);
  if (knot <= from || knot >= to) return clampedPart(net, from, to);
  return netsEndToEnd(clampedPart(net, knot, to), clampedPart(net, from, knot));
}
