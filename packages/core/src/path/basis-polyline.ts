import { distinctPoints, type ActivePoint } from './active-points.js';
import { SegmentList, type Segments } from './segments.js';

/** Straight runs from point to point. */
export function polylineSegments(points: readonly ActivePoint[], closed: boolean): Segments {
  const list = new SegmentList();
  const stops = distinctPoints(points, closed);
  const count = closed ? stops.length : stops.length - 1;
  for (let i = 0; i < count; i++) {
    list.addLine(stops[i].position, stops[(i + 1) % stops.length].position);
  }
  return list.build();
}
