import type { ShotPath } from '../document/shot-path.js';
import type { ActivePoint } from './active-points.js';
import type { Curve } from './curve.js';
import { SegmentList } from './segments-cubic.js';
import { rationalSegments } from './segments-rational.js';
import {
  grevilleKnot,
  periodicShift,
  spanBezier,
  splineDomain,
  splineNet,
  splineSpans,
} from './spline-net.js';
import type { Homogeneous, SplineNet } from './spline-net.js';
import type { Segments } from './segments.js';
import { elevateToCubic } from './elevate.js';

/** The curve of a `bspline` or `nurbs` path: a piece a span. */
export function splineCurve(path: ShotPath, points: readonly ActivePoint[]): Curve {
  const net = splineNet(path, points);
  const spans = splineSpans(net).filter((k) => hasExtent(net, k));
  const pieces = spans.map((k) => spanBezier(net, k));
  const segments = net.degree <= 3 && !isRational(net) ? cubics(pieces) : rationalSegments(pieces);
  // Of a periodic net the first points stand for the last ones.
  const periodic = net.controls.length > points.length;
  const shift = periodic ? periodicShift(net.degree) : 0;
  const [from, to] = splineDomain(net);
  const pointParameters = Float64Array.from(points, (_, i) => {
    const knot = grevilleKnot(net, i + shift);
    const inside = periodic && knot < from ? knot + (to - from) : Math.min(to, Math.max(from, knot));
    return parameterOfKnot(net, spans, inside);
  });
  return { segments, pointParameters };
}

/** Whether the weights make any difference. */
export function isRational({ controls }: SplineNet): boolean {
  return controls.some((control) => control[3] !== controls[0][3]);
}

/** Where a knot value lies on the path: span + part of it. */
export function parameterOfKnot(net: SplineNet, spans: readonly number[], knot: number): number {
  let low = 0;
  let high = spans.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (net.knots[spans[middle]] <= knot) low = middle;
    else high = middle - 1;
  }
  const start = net.knots[spans[low]];
  const end = net.knots[spans[low] + 1];
  return low + Math.min(1, Math.max(0, (knot - start) / (end - start)));
}

function cubics(pieces: readonly Homogeneous[][]): Segments {
  const list = new SegmentList();
  for (const piece of pieces) list.addBezier(...elevateToCubic(piece));
  return list.build();
}

/** A span whose control points are all one place cannot be travelled. */
function hasExtent({ controls, degree }: SplineNet, k: number): boolean {
  const first = controls[k - degree];
  for (let j = k - degree + 1; j <= k; j++) {
    for (let c = 0; c < 3; c++) if (controls[j][c] / controls[j][3] !== first[c] / first[3]) return true;
  }
  return false;
}
