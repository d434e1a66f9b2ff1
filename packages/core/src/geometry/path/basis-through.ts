import type { Vec3 } from '../math/vec.js';
import type { Bezier } from './bezier.js';
import { distinctPoints, type ActivePoint } from './active-points.js';
import { catmullRomSlope, knotSpacing, reflectedNeighbour } from './catmull-rom.js';
import type { Curve } from './curve.js';
import { SegmentList } from './segments-cubic.js';

/** The Catmull-Rom curve through all points; the open ends borrow a reflected neighbour. */
export function throughCurve(points: readonly ActivePoint[], closed: boolean, alpha: number): Curve {
  const list = new SegmentList();
  const stops = distinctPoints(points, closed);
  for (const bezier of throughBeziers(stops, closed, alpha)) list.addBezier(...bezier);
  const pointParameters = new Float64Array(points.length);
  const last = closed ? stops.length : stops.length - 1;
  let stop = 0;
  points.forEach((point, i) => {
    if (stop < stops.length && point === stops[stop]) stop++;
    // A repeated point acts at the point before; one that closes the loop acts at its end.
    pointParameters[i] = Math.min(last, Math.max(0, stop - 1));
  });
  return { segments: list.build(), pointParameters };
}

/** Segments of the curve through distinct points, in Bézier form. */
export function throughBeziers(stops: readonly ActivePoint[], closed: boolean, alpha: number): Bezier[] {
  const n = stops.length;
  if (n < 2) return [];
  const at = (i: number): Vec3 => stops[((i % n) + n) % n].position;
  const neighbour = (i: number, side: -1 | 1): Vec3 => {
    const outside = !closed && (i + side < 0 || i + side >= n);
    return outside ? reflectedNeighbour(at(i), at(i - side)) : at(i + side);
  };
  const slopes = stops.map((_, i) => catmullRomSlope(neighbour(i, -1), at(i), neighbour(i, 1), alpha));
  const count = closed ? n : n - 1;
  return Array.from({ length: count }, (_, i): Bezier => {
    const from = at(i);
    const to = at(i + 1);
    const third = knotSpacing(from, to, alpha) / 3;
    const out = slopes[i];
    const into = slopes[(i + 1) % n];
    return [
      from,
      [from[0] + out[0] * third, from[1] + out[1] * third, from[2] + out[2] * third],
      [to[0] - into[0] * third, to[1] - into[1] * third, to[2] - into[2] * third],
      to,
    ];
  });
}
