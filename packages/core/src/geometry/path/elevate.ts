import type { Vec3 } from '../math/vec.js';
import type { Homogeneous } from './spline-net.js';
import type { Bezier } from './bezier.js';

/**
 * A polynomial Bézier piece of degree one to three as a cubic: the same curve with more control points
 * (Piegl & Tiller, The NURBS Book, 5.5).
 *
 * @param piece its control points, all of one weight
 */
export function elevateToCubic(piece: readonly Homogeneous[]): Bezier {
  let points: Vec3[] = piece.map(([x, y, z, w]) => [x / w, y / w, z / w]);
  while (points.length < 4) {
    const degree = points.length;
    const before = points;
    points = Array.from({ length: degree + 1 }, (_, j): Vec3 => {
      const part = j / degree;
      const low = before[Math.max(0, j - 1)];
      const high = before[Math.min(degree - 1, j)];
      return [0, 1, 2].map((k) => part * low[k] + (1 - part) * high[k]) as Vec3;
    });
  }
  return points as unknown as Bezier;
}
