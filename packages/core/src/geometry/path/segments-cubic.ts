import type { Vec3Like } from '../math/vec.js';
import type { Segments } from './segments.js';

/**
 * Cubic pieces. Segment i takes twelve numbers from `coefficients[12 i]`: for x, then y, then z the
 * four coefficients a, b, c, d of a + b u + c u² + d u³.
 */
export class CubicSegments implements Segments {
  readonly count: number;

  constructor(readonly coefficients: Float64Array) {
    this.count = coefficients.length / 12;
  }

  position(i: number, u: number, out: Vec3Like): void {
    const c = this.coefficients;
    const at = 12 * i;
    out[0] = c[at] + u * (c[at + 1] + u * (c[at + 2] + u * c[at + 3]));
    out[1] = c[at + 4] + u * (c[at + 5] + u * (c[at + 6] + u * c[at + 7]));
    out[2] = c[at + 8] + u * (c[at + 9] + u * (c[at + 10] + u * c[at + 11]));
  }

  place(i: number, u: number, out: Float64Array, to: number): void {
    const c = this.coefficients;
    const at = 12 * i;
    const [x1, x2, x3] = [c[at + 1], c[at + 2], c[at + 3]];
    const [y1, y2, y3] = [c[at + 5], c[at + 6], c[at + 7]];
    const [z1, z2, z3] = [c[at + 9], c[at + 10], c[at + 11]];
    out[to] = c[at] + u * (x1 + u * (x2 + u * x3));
    out[to + 1] = c[at + 4] + u * (y1 + u * (y2 + u * y3));
    out[to + 2] = c[at + 8] + u * (z1 + u * (z2 + u * z3));
    out[to + 9] = x1 + u * (2 * x2 + 3 * u * x3);
    out[to + 10] = y1 + u * (2 * y2 + 3 * u * y3);
    out[to + 11] = z1 + u * (2 * z2 + 3 * u * z3);
  }

  velocity(i: number, u: number, out: Vec3Like): void {
    const c = this.coefficients;
    const at = 12 * i;
    out[0] = c[at + 1] + u * (2 * c[at + 2] + 3 * u * c[at + 3]);
    out[1] = c[at + 5] + u * (2 * c[at + 6] + 3 * u * c[at + 7]);
    out[2] = c[at + 9] + u * (2 * c[at + 10] + 3 * u * c[at + 11]);
  }

  derivative(i: number, u: number, order: 2 | 3, out: Vec3Like): void {
    const c = this.coefficients;
    const at = 12 * i;
    const [x, y, z] = [6 * c[at + 3], 6 * c[at + 7], 6 * c[at + 11]];
    out[0] = order === 2 ? 2 * c[at + 2] + u * x : x;
    out[1] = order === 2 ? 2 * c[at + 6] + u * y : y;
    out[2] = order === 2 ? 2 * c[at + 10] + u * z : z;
  }

  speed(i: number, u: number): number {
    const c = this.coefficients;
    const at = 12 * i;
    const x = c[at + 1] + u * (2 * c[at + 2] + 3 * u * c[at + 3]);
    const y = c[at + 5] + u * (2 * c[at + 6] + 3 * u * c[at + 7]);
    const z = c[at + 9] + u * (2 * c[at + 10] + 3 * u * c[at + 11]);
    return Math.sqrt(x * x + y * y + z * z);
  }

  speedSlope(i: number, u: number): number {
    const c = this.coefficients;
    const at = 12 * i;
    let dot = 0;
    let square = 0;
    for (let k = at; k < at + 12; k += 4) {
      const first = c[k + 1] + u * (2 * c[k + 2] + 3 * u * c[k + 3]);
      dot += first * (2 * c[k + 2] + 6 * u * c[k + 3]);
      square += first * first;
    }
    return square > 0 ? dot / Math.sqrt(square) : 0;
  }
}

/** Collects cubic segments one by one. */
export class SegmentList {
  private readonly values: number[] = [];

  get count(): number {
    return this.values.length / 12;
  }

  /** A cubic in Bézier form; dropped when it has no extent, since nothing can travel it. */
  addBezier(
    p0: readonly number[],
    p1: readonly number[],
    p2: readonly number[],
    p3: readonly number[],
  ): void {
    if (isSame(p0, p1) && isSame(p2, p3)) {
      this.addLine(p0, p3);
      return;
    }
    for (let k = 0; k < 3; k++) {
      const b = 3 * (p1[k] - p0[k]);
      const c = 3 * (p2[k] - 2 * p1[k] + p0[k]);
      this.values.push(p0[k], b, c, p3[k] - p0[k] - b - c);
    }
  }

  /** A straight run at even speed; dropped when both ends are one place. */
  addLine(from: readonly number[], to: readonly number[]): void {
    if (isSame(from, to)) return;
    for (let k = 0; k < 3; k++) this.values.push(from[k], to[k] - from[k], 0, 0);
  }

  build(): CubicSegments {
    return new CubicSegments(Float64Array.from(this.values));
  }
}

function isSame(a: readonly number[], b: readonly number[]): boolean {
  return a[0] === b[0] && a[1] === b[1] && a[2] === b[2];
}
