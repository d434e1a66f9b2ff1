import { lastAtMost } from '../math/search.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { ActivePoint } from './active-points.js';
import type { Curve } from './curve.js';
import { CubicSegments, SegmentList } from './segments-cubic.js';
import { rationalSegments } from './segments-rational.js';
import {
  grevilleKnot,
  periodicShift,
  spanBezier,
  spanBezierInto,
  splineDomain,
  splineNet,
  splineSpans,
} from './spline-net.js';
import type { SplineNet } from './spline-net.js';
import type { Segments } from './segments.js';
import { elevateToCubic } from './elevate.js';

/** The curve of a `bspline` or `nurbs` path: a piece a span. */
export function splineCurve(path: ShotPath, points: readonly ActivePoint[]): Curve {
  const net = splineNet(path, points);
  const spans = splineSpans(net).filter((k) => hasExtent(net, k));
  const segments = net.degree <= 3 && !isRational(net) ? cubics(net, spans) : rationals(net, spans);
  // In a periodic net the first points are repeated as the last ones.
  const periodic = net.controls.length > points.length;
  const shift = periodic ? periodicShift(net.degree) : 0;
  const [from, to] = splineDomain(net);
  const starts = Float64Array.from(spans, (k) => net.knots[k]);
  const pointParameters = Float64Array.from(points, (_, i) => {
    const knot = grevilleKnot(net, i + shift);
    const inside = periodic && knot < from ? knot + (to - from) : Math.min(to, Math.max(from, knot));
    // Position of the knot's value on the path: span + part of it.
    const span = lastAtMost(starts, inside);
    const end = net.knots[spans[span] + 1];
    return span + Math.min(1, Math.max(0, (inside - starts[span]) / (end - starts[span])));
  });
  return { segments, pointParameters };
}

/** Whether the weights make any difference. */
export function isRational({ controls }: SplineNet): boolean {
  return controls.some((control) => control[3] !== controls[0][3]);
}

function cubics(net: SplineNet, spans: readonly number[]): Segments {
  if (net.degree === 3) return cubicsOfDegreeThree(net, spans);
  const list = new SegmentList();
  for (const k of spans) list.addBezier(...elevateToCubic(spanBezier(net, k)));
  return list.build();
}

/** The usual case, written straight into its power coefficients: a spline may have thousands of spans. */
function cubicsOfDegreeThree(net: SplineNet, spans: readonly number[]): Segments {
  const coefficients = new Float64Array(12 * spans.length);
  const p = new Float64Array(16);
  spans.forEach((k, i) => {
    spanBezierInto(net, k, p, 0);
    for (let c = 0; c < 3; c++) {
      const at = 12 * i + 4 * c;
      const [w0, w1, w2, w3] = [p[c] / p[3], p[4 + c] / p[7], p[8 + c] / p[11], p[12 + c] / p[15]];
      coefficients[at] = w0;
      coefficients[at + 1] = 3 * (w1 - w0);
      coefficients[at + 2] = 3 * (w2 - 2 * w1 + w0);
      coefficients[at + 3] = w3 - 3 * w2 + 3 * w1 - w0;
    }
  });
  return new CubicSegments(coefficients);
}

function rationals(net: SplineNet, spans: readonly number[]): Segments {
  const stride = 4 * (net.degree + 1);
  const controls = new Float64Array(stride * spans.length);
  spans.forEach((k, i) => spanBezierInto(net, k, controls, stride * i));
  return rationalSegments(controls, net.degree);
}

/** A span whose control points are all one place cannot be travelled. */
function hasExtent({ controls, degree }: SplineNet, k: number): boolean {
  const first = controls[k - degree];
  for (let j = k - degree + 1; j <= k; j++) {
    for (let c = 0; c < 3; c++) {
      const [here, there] = [controls[j][c] / controls[j][3], first[c] / first[3]];
      // Places that differ by no more than their weights round off are one.
      if (Math.abs(here - there) > 1e-14 * Math.abs(there)) return true;
    }
  }
  return false;
}
