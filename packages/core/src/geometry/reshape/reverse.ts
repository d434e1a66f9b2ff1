import type { Vec3 } from '../math/vec.js';
import type { PathPoint, ShotPath } from '../../document/shot-path.js';

/**
 * The same curve, run the other way. A closed path keeps its first point. Marks stay where they are
 * on the curve.
 *
 * @param length the path's length in metres, for the marks
 */
export function reversePath(path: ShotPath, length: number): ShotPath {
  const turned = path.points.map(reversePoint).reverse();
  const periodic = path.closed && !(path.basis === 'nurbs' && path.knots !== null);
  for (let steps = periodic ? firstSteps(path) : 0; steps > 0; steps--)
    turned.unshift(turned.pop() as PathPoint);
  return {
    ...path,
    points: turned,
    knots: path.knots && reverseKnots(path.knots),
    marks: path.marks.map((mark) => ({ ...mark, distance: length - mark.distance })),
  };
}

/**
 * How many points from the end of the reversed list a closed path begins, so that it begins where it did: at
 * its first point; a spline of even degree, which begins between two points, at the second of them.
 */
function firstSteps(path: ShotPath): number {
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  const spline = path.basis === 'bspline' || path.basis === 'nurbs';
  const between = spline && Math.min(path.degree, active.length - 1) % 2 === 0;
  return Math.min(path.points.length, (active[between ? 1 : 0] ?? -1) + 1);
}

function reversePoint(point: PathPoint): PathPoint {
  return { ...point, in: [...point.out] as Vec3, out: [...point.in] as Vec3, roll: -point.roll || 0 };
}

function reverseKnots(knots: readonly number[]): number[] {
  const sum = knots[0] + knots[knots.length - 1];
  return knots.map((knot) => sum - knot).reverse();
}
