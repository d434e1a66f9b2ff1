import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { compilePath } from '../path/compile-path.js';
import { fitSpline, fitThrough } from './fit-points.js';
import { findKinks } from '../path/path-facts.js';

/**
 * The path with its points at even distances. Bézier points get the curve's own direction and handles of a
 * third of the spacing; a spline is made to pass the curve at even distances.
 *
 * @param count points, at least 2; 3 on a closed path
 * @throws PathError where the path has no curve
 */
export function resamplePath(path: ShotPath, count: number): ShotPath {
  const curve = compilePath(path);
  const least = path.closed ? 3 : 2;
  const n = Math.max(least, Math.round(count));
  if (path.basis === 'through' || path.basis === 'polyline') return fitThrough(curve, path, n, path.basis);
  if (path.basis !== 'bezier') return fitSpline(curve, path, n);
  const step = curve.length / (path.closed ? n : n - 1);
  const kinks = findKinks(curve).map(({ distance }) => distance);
  const place: Vec3 = [0, 0, 0];
  const tangent: Vec3 = [0, 0, 0];
  const end = (s: number, side: 1 | -1): [Vec3, Vec3] => {
    // At a kink the direction is that of the side the handle is on.
    const beside = kinks.some((kink) => Math.abs(kink - s) < 1e-9 * curve.length) && side < 0;
    curve.position(s, place);
    curve.tangent(beside || s >= curve.length ? s - 1e-11 * curve.length : s, tangent);
    return [[...place], place.map((value, k) => value + (side * tangent[k] * step) / 3) as Vec3];
  };
  const pieces = Array.from({ length: path.closed ? n : n - 1 }, (_, i): Bezier => {
    const [from, out] = end(i * step, 1);
    const [to, into] = end((i + 1) * step, -1);
    return [from, out, into, to];
  });
  return bezierPath(path, pieces, path.closed, (i) => curve.rollDegrees(i * step));
}
