import type { ActivePoint } from './active-points.js';
import type { Curve } from './curve.js';
import { SegmentList } from './segments-cubic.js';

/** Straight runs from point to point. */
export function polylineCurve(points: readonly ActivePoint[], closed: boolean): Curve {
  const list = new SegmentList();
  const n = points.length;
  const pointParameters = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    pointParameters[i] = list.count;
    if (i < n - 1 || closed) list.addLine(points[i].position, points[(i + 1) % n].position);
  }
  return { segments: list.build(), pointParameters };
}
