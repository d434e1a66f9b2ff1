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
  /** By segment five coefficients each of A′ w − A w′ for x, y and z; null above the third degree. */
  private readonly numerators: Float64Array | null;

  constructor(
    private readonly coefficients: Float64Array,
    private readonly degree: number,
  ) {
    this.count = coefficients.length / (4 * SIZE);
    this.numerators = degree > 3 ? null : numeratorsOf(coefficients, this.count);
  }

  position(i: number, u: number, out: Vec3Like): void {
    const w = this.value(i, 3, u);
    for (let k = 0; k < 3; k++) out[k] = this.value(i, k, u) / w;
  }

  place(i: number, u: number, out: Float64Array, at: number): void {
    const c = this.coefficients;
    const w = this.value(i, 3, u);
    const pull = this.slope(i, 3, u) / w;
    for (let k = 0, from = 4 * SIZE * i; k < 3; k++, from += SIZE) {
      const [c1, c2, c3, c4, c5] = [c[from + 1], c[from + 2], c[from + 3], c[from + 4], c[from + 5]];
      const value = c[from] + u * (c1 + u * (c2 + u * (c3 + u * (c4 + u * c5))));
      const slope = c1 + u * (2 * c2 + u * (3 * c3 + u * (4 * c4 + u * 5 * c5)));
      out[at + k] = value / w;
      out[at + 9 + k] = (slope - pull * value) / w;
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

  /** Asked for a million times while arc length is tabled: |A′ w − A w′| / w², its numerators known for the usual degrees. */
  speed(i: number, u: number): number {
    const { numerators: n } = this;
    if (n === null) {
      this.velocity(i, u, a1);
      return Math.sqrt(a1[0] * a1[0] + a1[1] * a1[1] + a1[2] * a1[2]);
    }
    const at = 15 * i;
    const x = n[at] + u * (n[at + 1] + u * (n[at + 2] + u * (n[at + 3] + u * n[at + 4])));
    const y = n[at + 5] + u * (n[at + 6] + u * (n[at + 7] + u * (n[at + 8] + u * n[at + 9])));
    const z = n[at + 10] + u * (n[at + 11] + u * (n[at + 12] + u * (n[at + 13] + u * n[at + 14])));
    const c = this.coefficients;
    const k = (4 * i + 3) * SIZE;
    const w = c[k] + u * (c[k + 1] + u * (c[k + 2] + u * c[k + 3]));
    return Math.sqrt(x * x + y * y + z * z) / (w * w);
  }

  speedSlope(i: number, u: number): number {
    if (this.numerators !== null) return this.slopeByNumerators(this.numerators, i, u);
    this.velocity(i, u, a1);
    this.derivative(i, u, 2, a2);
    const speed = Math.sqrt(a1[0] * a1[0] + a1[1] * a1[1] + a1[2] * a1[2]);
    return speed > 0 ? (a1[0] * a2[0] + a1[1] * a2[1] + a1[2] * a2[2]) / speed : 0;
  }

  /** d/du of |n| / w²: (n · n′) / (|n| w²) − 2 |n| w′ / w³. */
  private slopeByNumerators(n: Float64Array, i: number, u: number): number {
    let square = 0;
    let dot = 0;
    for (let at = 15 * i; at < 15 * i + 15; at += 5) {
      const value = n[at] + u * (n[at + 1] + u * (n[at + 2] + u * (n[at + 3] + u * n[at + 4])));
      square += value * value;
      dot += value * (n[at + 1] + u * (2 * n[at + 2] + u * (3 * n[at + 3] + u * 4 * n[at + 4])));
    }
    if (square === 0) return 0;
    const size = Math.sqrt(square);
    const w = this.value(i, 3, u);
    return (dot / size - (2 * size * this.slope(i, 3, u)) / w) / (w * w);
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

/** A′ w − A w′ of cubics, whose fifth power cancels. */
function numeratorsOf(c: Float64Array, count: number): Float64Array {
  const out = new Float64Array(15 * count);
  for (let i = 0; i < count; i++) {
    const w = (4 * i + 3) * SIZE;
    const [w0, w1, w2, w3] = [c[w], c[w + 1], c[w + 2], c[w + 3]];
    for (let k = 0; k < 3; k++) {
      const a = (4 * i + k) * SIZE;
      const [p0, p1, p2, p3] = [c[a], c[a + 1], c[a + 2], c[a + 3]];
      const at = 15 * i + 5 * k;
      out[at] = p1 * w0 - p0 * w1;
      out[at + 1] = 2 * (p2 * w0 - p0 * w2);
      out[at + 2] = 3 * (p3 * w0 - p0 * w3) + p2 * w1 - p1 * w2;
      out[at + 3] = 2 * (p3 * w1 - p1 * w3);
      out[at + 4] = p3 * w2 - p2 * w3;
    }
  }
  return out;
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
