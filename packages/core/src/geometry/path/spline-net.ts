import type { ShotPath } from '../../document/shot-path.js';
import type { ActivePoint } from './active-points.js';
import { MOST_DEGREE } from './segments-rational.js';

/** A point in homogeneous form: w x, w y, w z, w. */
export type Homogeneous = readonly number[];

/** A (rational) B-spline: control points and the full knot vector, which is degree + 1 longer. */
export interface SplineNet {
  readonly degree: number;
  readonly knots: readonly number[];
  readonly controls: readonly Homogeneous[];
}

/**
 * The control net of a `bspline` or `nurbs` path.
 *
 * Without knots of its own an open path has uniform clamped ones, a closed path periodic ones, whose
 * points are repeated so that the curve begins near the first point. Knots of its own say the whole
 * curve, so on a closed path its ends have to meet by themselves. They no longer fit when points are
 * switched off; then the uniform ones stand in. The degree is at most one less than the points.
 *
 * @param points the active points, at least two
 */
export function splineNet(path: ShotPath, points: readonly ActivePoint[]): SplineNet {
  const rational = path.basis === 'nurbs';
  const controls = points.map(({ position: [x, y, z], source }): Homogeneous => {
    const w = rational ? source.weight : 1;
    return [w * x, w * y, w * z, w];
  });
  const n = controls.length;
  const degree = Math.min(path.degree, n - 1);
  const own = ownKnots(path, n, degree);
  if (own) return { degree, knots: own, controls };
  if (path.closed) {
    const shift = periodicShift(degree);
    const wrapped = Array.from({ length: n + degree }, (_, j) => controls[(j - shift + n) % n]);
    return {
      degree,
      controls: wrapped,
      knots: Array.from({ length: n + 2 * degree + 1 }, (_, j) => j - degree),
    };
  }
  return { degree, controls, knots: clampedKnots(n, degree) };
}

/** How many points before the first take part in the first span of a periodic spline. */
export function periodicShift(degree: number): number {
  return Math.floor((degree - 1) / 2);
}

/** Uniform knots, repeated at both ends so that the curve begins and ends on its outer points. */
export function clampedKnots(count: number, degree: number): number[] {
  return Array.from({ length: count + degree + 1 }, (_, j) =>
    Math.min(count - degree, Math.max(0, j - degree)),
  );
}

function ownKnots(path: ShotPath, count: number, degree: number): readonly number[] | null {
  if (path.basis !== 'nurbs' || path.knots === null || path.degree !== degree) return null;
  return path.knots.length === count + degree + 1 ? path.knots : null;
}

/** The knot values between which the curve is drawn. */
export function splineDomain({ degree, knots, controls }: SplineNet): [number, number] {
  return [knots[degree], knots[controls.length]];
}

/** The knot value where control point j acts most: the mean of the knots that shape it (Greville). */
export function grevilleKnot({ degree, knots }: SplineNet, j: number): number {
  let sum = 0;
  for (let m = 1; m <= degree; m++) sum += knots[j + m];
  return sum / degree;
}

/** The spans of the domain that have an extent, each by the index of the knot it begins at. */
export function splineSpans(net: SplineNet): number[] {
  const spans: number[] = [];
  for (let k = net.degree; k < net.controls.length; k++) if (net.knots[k + 1] > net.knots[k]) spans.push(k);
  return spans;
}

/**
 * The Bézier control points of one span, by blossoming: control j is the blossom with j arguments at the
 * span's end and the rest at its start (Ramshaw 1987).
 *
 * @param k index of the knot at which the span begins
 */
export function spanBezier(net: SplineNet, k: number): Homogeneous[] {
  const flat = new Float64Array(4 * (net.degree + 1));
  spanBezierInto(net, k, flat, 0);
  return Array.from({ length: net.degree + 1 }, (_, j) => [...flat.subarray(4 * j, 4 * j + 4)]);
}

/** {@link spanBezier}, written one after another from `out[at]`. */
export function spanBezierInto(net: SplineNet, k: number, out: Float64Array, at: number): void {
  for (let ends = 0; ends <= net.degree; ends++) {
    blossom(net, k, ends);
    for (let c = 0; c < 4; c++) out[at + 4 * ends + c] = row[4 * net.degree + c];
  }
}

const row = new Float64Array(4 * (MOST_DEGREE + 1));

/**
 * De Boor's triangle of a span: the last `ends` steps use the span's end as argument, those before its start. The
 * result is last in `row`.
 */
function blossom({ degree, knots, controls }: SplineNet, k: number, ends: number): void {
  for (let j = 0; j <= degree; j++) {
    const control = controls[k - degree + j];
    for (let c = 0; c < 4; c++) row[4 * j + c] = control[c];
  }
  for (let step = 1; step <= degree; step++) {
    const at = step <= degree - ends ? knots[k] : knots[k + 1];
    for (let j = degree; j >= step; j--) {
      const i = k - degree + j;
      const part = (at - knots[i]) / (knots[i + degree - step + 1] - knots[i]);
      for (let c = 4 * j; c < 4 * j + 4; c++) row[c] = (1 - part) * row[c - 4] + part * row[c];
    }
  }
}
