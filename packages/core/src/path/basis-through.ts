import type { Vec3 } from '../math/vec.js';
import { distinctPoints, type ActivePoint } from './active-points.js';
import { catmullRomSlope, knotSpacing, reflectedNeighbour } from './catmull-rom.js';
import { SegmentList, type Segments } from './segments.js';

/** The Catmull-Rom curve through all points; the open ends borrow a reflected neighbour. */
export function throughSegments(points: readonly ActivePoint[], closed: boolean, alpha: number): Segments {
  const list = new SegmentList();
  const stops = distinctPoints(points, closed);
  const n = stops.length;
  if (n < 2) return list.build();
  const at = (i: number): Vec3 => stops[((i % n) + n) % n].position;
  const neighbour = (i: number, side: -1 | 1): Vec3 => {
    const outside = !closed && (i + side < 0 || i + side >= n);
    return outside ? reflectedNeighbour(at(i), at(i - side)) : at(i + side);
  };
  const slopes = stops.map((_, i) => catmullRomSlope(neighbour(i, -1), at(i), neighbour(i, 1), alpha));
  const count = closed ? n : n - 1;
  for (let i = 0; i < count; i++) {
    const from = at(i);
    const to = at(i + 1);
    const third = knotSpacing(from, to, alpha) / 3;
    const out = slopes[i];
    const into = slopes[(i + 1) % n];
    list.addBezier(
      from,
      [from[0] + out[0] * third, from[1] + out[1] * third, from[2] + out[2] * third],
      [to[0] - into[0] * third, to[1] - into[1] * third, to[2] - into[2] * third],
      to,
    );
  }
  return list.build();
}
