import type { Vec3Like } from '../math/vec.js';
import type { Segments } from './segments.js';

/** The highest degree a piece may have. */
export const MOST_DEGREE = 5;
const SIZE = MOST_DEGREE + 1;

const a1 = new Float64Array(3);
const a2 = new Float64Array(3);

/**
 * Rational pieces of a degree up to five, and polynomial ones of degree four and five (whose weight is
 * 1 throughout). Segment i takes 24 numbers from `coefficients[24 i]`: for w·x, w·y, w·z, then w the
 * six coefficients of the powers of u.
 *
 * Derivatives by the quotient rule applied again and again (Piegl & Tiller, The NURBS Book, 4.3):
 * r⁽ᵏ⁾ = (A⁽ᵏ⁾ − Σ binomial(k, j) w⁽ʲ⁾ r⁽ᵏ⁻ʲ⁾) / w.
 */
export class RationalSegments implements Segments {
  readonly count: number;

  constructor(
    private readonly coefficients: Float64Array,
    private readonly degree: number,
  ) {
    this.count = coefficients.length / (4 * SIZE);
  }

  position(i: number, u: number, out: Vec3Like): void {
    const w = this.value(i, 3, u);
    for (let k = 0; k < 3; k++) out[k] = this.value(i, k, u) / w;
  }

  place(i: number, u: number, out: Float64Array, at: number): void {
    const w = this.value(i, 3, u);
    const pull = this.slope(i, 3, u) / w;
    for (let k = 0; k < 3; k++) {
      const value = this.value(i, k, u);
      out[at + k] = value / w;
      out[at + 9 + k] = (this.slope(i, k, u) - pull * value) / w;
    }
  }

  velocity(i: number, u: number, out: Vec3Like): void {
    const w = this.value(i, 3, u);
    const pull = this.slope(i, 3, u) / w;
    out[0] = this.rate(i, 0, u, w, pull);
    out[1] = this.rate(i, 1, u, w, pull);
    out[2] = this.rate(i, 2, u, w, pull);
  }

  derivative(i: number, u: number, order: 2 | 3, out: Vec3Like): void {
    const w = this.value(i, 3, u);
    const w1 = this.slope(i, 3, u);
    const w2 = this.bend(i, 3, u);
    for (let k = 0; k < 3; k++) {
      const r0 = this.value(i, k, u) / w;
      const r1 = (this.slope(i, k, u) - w1 * r0) / w;
      const r2 = (this.bend(i, k, u) - 2 * w1 * r1 - w2 * r0) / w;
      if (order === 2) out[k] = r2;
      else {
        const w3 = this.twist(i, 3, u);
        out[k] = (this.twist(i, k, u) - 3 * w1 * r2 - 3 * w2 * r1 - w3 * r0) / w;
      }
    }
  }

  /** Asked for a million times while arc length is tabled, so the usual degrees are written out. */
  speed(i: number, u: number): number {
    if (this.degree > 3) {
      this.velocity(i, u, a1);
      return Math.sqrt(a1[0] * a1[0] + a1[1] * a1[1] + a1[2] * a1[2]);
    }
    const c = this.coefficients;
    const at = 4 * SIZE * i;
    const x1 = c[at + 1];
    const x2 = c[at + 2];
    const x3 = c[at + 3];
    const y1 = c[at + SIZE + 1];
    const y2 = c[at + SIZE + 2];
    const y3 = c[at + SIZE + 3];
    const z1 = c[at + 2 * SIZE + 1];
    const z2 = c[at + 2 * SIZE + 2];
    const z3 = c[at + 2 * SIZE + 3];
    const w1 = c[at + 3 * SIZE + 1];
    const w2 = c[at + 3 * SIZE + 2];
    const w3 = c[at + 3 * SIZE + 3];
    const w = c[at + 3 * SIZE] + u * (w1 + u * (w2 + u * w3));
    const pull = (w1 + u * (2 * w2 + 3 * u * w3)) / w;
    const x = x1 + u * (2 * x2 + 3 * u * x3) - pull * (c[at] + u * (x1 + u * (x2 + u * x3)));
    const y = y1 + u * (2 * y2 + 3 * u * y3) - pull * (c[at + SIZE] + u * (y1 + u * (y2 + u * y3)));
    const z = z1 + u * (2 * z2 + 3 * u * z3) - pull * (c[at + 2 * SIZE] + u * (z1 + u * (z2 + u * z3)));
    return Math.sqrt(x * x + y * y + z * z) / w;
  }

  speedSlope(i: number, u: number): number {
    this.velocity(i, u, a1);
    this.derivative(i, u, 2, a2);
    const speed = Math.sqrt(a1[0] * a1[0] + a1[1] * a1[1] + a1[2] * a1[2]);
    return speed > 0 ? (a1[0] * a2[0] + a1[1] * a2[1] + a1[2] * a2[2]) / speed : 0;
  }

  /** The derivative of one coordinate, given the weight and its slope over it. */
  private rate(i: number, k: number, u: number, w: number, pull: number): number {
    return (this.slope(i, k, u) - pull * this.value(i, k, u)) / w;
  }

  private value(i: number, k: number, u: number): number {
    const c = this.coefficients;
    const at = (4 * i + k) * SIZE;
    const high = this.degree > 3 ? u * (c[at + 4] + u * c[at + 5]) : 0;
    return c[at] + u * (c[at + 1] + u * (c[at + 2] + u * (c[at + 3] + high)));
  }

  private slope(i: number, k: number, u: number): number {
    const c = this.coefficients;
    const at = (4 * i + k) * SIZE;
    const high = this.degree > 3 ? u * (4 * c[at + 4] + u * 5 * c[at + 5]) : 0;
    return c[at + 1] + u * (2 * c[at + 2] + u * (3 * c[at + 3] + high));
  }

  private bend(i: number, k: number, u: number): number {
    const c = this.coefficients;
    const at = (4 * i + k) * SIZE;
    return 2 * c[at + 2] + u * (6 * c[at + 3] + u * (12 * c[at + 4] + u * 20 * c[at + 5]));
  }

  private twist(i: number, k: number, u: number): number {
    const c = this.coefficients;
    const at = (4 * i + k) * SIZE;
    return 6 * c[at + 3] + u * (24 * c[at + 4] + u * 60 * c[at + 5]);
  }
}

/**
 * Rational segments from Bézier control points.
 *
 * @param controls by segment degree + 1 control points in homogeneous form, w x, w y, w z, w of each in turn
 */
export function rationalSegments(controls: Float64Array, degree: number): RationalSegments {
  const stride = 4 * (degree + 1);
  const count = controls.length / stride;
  const out = new Float64Array(count * 4 * SIZE);
  const differences = new Float64Array(degree + 1);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < 4; k++) {
      // Power coefficient j is binomial(degree, j) times the j-th forward difference.
      for (let j = 0; j <= degree; j++) differences[j] = controls[i * stride + 4 * j + k];
      let binomial = 1;
      for (let j = 0; j <= degree; j++) {
        out[(4 * i + k) * SIZE + j] = binomial * differences[0];
        for (let m = 0; m < degree - j; m++) differences[m] = differences[m + 1] - differences[m];
        binomial = (binomial * (degree - j)) / (j + 1);
      }
    }
  }
  return new RationalSegments(out, degree);
}
