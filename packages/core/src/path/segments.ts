/**
 * The common form of every basis: a run of cubic polynomials.
 *
 * Segment i takes twelve numbers from `coefficients[12 i]`: for x, then y, then z the four
 * coefficients a, b, c, d of a + b u + c u² + d u³, u from 0 to 1.
 */
export interface Segments {
  readonly coefficients: Float64Array;
  readonly count: number;
}

/** Collects segments one by one. */
export class SegmentList {
  private readonly values: number[] = [];

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

  build(): Segments {
    return { coefficients: Float64Array.from(this.values), count: this.values.length / 12 };
  }
}

function isSame(a: readonly number[], b: readonly number[]): boolean {
  return a[0] === b[0] && a[1] === b[1] && a[2] === b[2];
}
