import { defaultsOf } from '../../document/defaults.js';
import { PathPoint, type ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { toLocal } from '../path/placement.js';
import { clampedKnots, grevilleKnot, periodicShift, spanBezier, type SplineNet } from '../path/spline-net.js';

const plainPoint = defaultsOf(PathPoint);

/** Points at even distances along a curve; on an open one both ends are among them. */
export function evenPoints(curve: CompiledPath, like: ShotPath, count: number): PathPoint[] {
  const place: Vec3 = [0, 0, 0];
  const step = curve.length / (curve.closed ? count : count - 1);
  return Array.from({ length: count }, (_, i) => {
    curve.position(i * step, place);
    const roll = curve.rollDegrees(Math.min(i * step, curve.length));
    return { ...plainPoint, position: toLocal(like.transform, place), roll };
  });
}

/** A path with its points at even distances on a curve, drawn through them or straight between them. */
export function fitThrough(
  curve: CompiledPath,
  like: ShotPath,
  count: number,
  basis: 'through' | 'polyline',
): ShotPath {
  return { ...like, basis, knots: null, points: evenPoints(curve, like, count) };
}

const ROUNDS = 60;

/**
 * A cubic B-spline that passes a curve at even distances, a control point for each.
 *
 * The control points are moved by what the spline still misses at their own knots, again and again; that
 * converges since B-splines are totally positive (Lin, Bao & Wang 2005, "Totally positive bases and
 * progressive iteration approximation").
 */
export function fitSpline(curve: CompiledPath, like: ShotPath, count: number): ShotPath {
  const degree = Math.min(3, count - 1);
  const built: ShotPath = { ...like, basis: 'bspline', degree, knots: null, points: [] };
  const { closed } = like;
  const knots = closed
    ? Array.from({ length: count + 2 * degree + 1 }, (_, j) => j - degree)
    : clampedKnots(count, degree);
  const shift = closed ? periodicShift(degree) : 0;
  const controls = Array.from({ length: closed ? count + degree : count }, () => [0, 0, 0, 1]);
  const net: SplineNet = { degree, knots, controls };
  const end = closed ? count : count - degree;
  const knot = (i: number) => grevilleKnot(net, i + shift);
  const targets = Array.from({ length: count }, (_, i): Vec3 => {
    const place: Vec3 = [0, 0, 0];
    curve.position((curve.length * knot(i)) / end, place);
    return place;
  });
  const places = targets.map((target): Vec3 => [...target]);
  const spread = () =>
    controls.forEach((control, j) => {
      const place = places[closed ? (j - shift + count) % count : j];
      for (let k = 0; k < 3; k++) control[k] = place[k];
    });
  const here: Vec3 = [0, 0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    spread();
    let most = 0;
    const misses = targets.map((target, i): Vec3 => {
      splineAt(net, knot(i), here);
      return [target[0] - here[0], target[1] - here[1], target[2] - here[2]];
    });
    misses.forEach((miss, i) => {
      most = Math.max(most, Math.hypot(...miss));
      for (let k = 0; k < 3; k++) places[i][k] += miss[k];
    });
    if (most < 1e-12 * curve.length) break;
  }
  const points = places.map((place, i): PathPoint => {
    const s = (curve.length * Math.min(end, Math.max(0, knot(i)))) / end;
    const roll = curve.rollDegrees(Math.min(s, curve.length));
    return { ...plainPoint, position: toLocal(like.transform, place), roll };
  });
  return { ...built, points };
}

/** The place of a polynomial spline with knots one apart at a knot value of its domain. */
function splineAt(net: SplineNet, knot: number, out: Vec3): void {
  const { degree, knots, controls } = net;
  const k = Math.min(controls.length - 1, degree + Math.max(0, Math.floor(knot)));
  const piece = spanBezier(net, k).map((control) => [...control]);
  const t = (knot - knots[k]) / (knots[k + 1] - knots[k]);
  for (let step = degree; step > 0; step--) {
    for (let j = 0; j < step; j++)
      for (let c = 0; c < 3; c++) piece[j][c] += t * (piece[j + 1][c] - piece[j][c]);
  }
  for (let c = 0; c < 3; c++) out[c] = piece[0][c];
}
