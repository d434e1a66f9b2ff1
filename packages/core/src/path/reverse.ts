import type { Vec3 } from '../math/vec.js';
import type { PathPoint, ShotPath } from '../document/shot-path.js';

/**
 * The same curve, run the other way. A closed path keeps its first point. Marks stay where they are
 * on the curve.
 *
 * @param length the path's length in metres, for the marks
 */
export function reversePath(path: ShotPath, length: number): ShotPath {
  const turned = path.points.map(reversePoint).reverse();
  if (path.closed && turned.length > 0) turned.unshift(turned.pop() as PathPoint);
  return {
    ...path,
    points: turned,
    knots: path.knots && reverseKnots(path.knots),
    marks: path.marks.map((mark) => ({ ...mark, distance: length - mark.distance })),
  };
}

function reversePoint(point: PathPoint): PathPoint {
  return { ...point, in: [...point.out] as Vec3, out: [...point.in] as Vec3, roll: -point.roll || 0 };
}

function reverseKnots(knots: readonly number[]): number[] {
  const sum = knots[0] + knots[knots.length - 1];
  return knots.map((knot) => sum - knot).reverse();
}
