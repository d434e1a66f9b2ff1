import type { Vec3 } from '../math/vec.js';
import type { Bezier } from '../path/bezier.js';

/** The two parts of a cubic on either side of u, the same curve together (de Casteljau). */
export function splitBezier([p0, p1, p2, p3]: Bezier, u: number): [Bezier, Bezier] {
  const between = (a: Vec3, b: Vec3): Vec3 => [0, 1, 2].map((k) => a[k] + (b[k] - a[k]) * u) as Vec3;
  const a = between(p0, p1);
  const b = between(p1, p2);
  const c = between(p2, p3);
  const ab = between(a, b);
  const bc = between(b, c);
  const middle = between(ab, bc);
  return [
    [p0, a, ab, middle],
    [middle, bc, c, p3],
  ];
}
