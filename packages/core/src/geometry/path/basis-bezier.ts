import type { Vec3 } from '../math/vec.js';
import type { ActivePoint } from './active-points.js';
import { catmullRomSlope, knotSpacing, reflectedNeighbour } from './catmull-rom.js';
import type { Curve } from './curve.js';
import { SegmentList } from './segments-cubic.js';

/** Cubic Bézier segments between the points' handles; `auto` points get theirs from their neighbours. */
export function bezierCurve(points: readonly ActivePoint[], closed: boolean): Curve {
  const list = new SegmentList();
  const n = points.length;
  const pointParameters = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    pointParameters[i] = list.count;
    if (i === n - 1 && !closed) break;
    const to = points[(i + 1) % n];
    list.addBezier(
      points[i].position,
      handleEnd(points, i, closed, 1),
      handleEnd(points, (i + 1) % n, closed, -1),
      to.position,
    );
  }
  return { segments: list.build(), pointParameters };
}

/** The world-space end of the handle of point i towards the next (1) or the previous (−1) point. */
export function handleEnd(points: readonly ActivePoint[], i: number, closed: boolean, side: -1 | 1): Vec3 {
  const point = points[i];
  if (point.source.handles !== 'auto') return point.handleEnd(side);
  const here = point.position;
  const before = neighbour(points, i, closed, -1);
  const after = neighbour(points, i, closed, 1);
  const towards = side === 1 ? after : before;
  if (isSame(before, here) || isSame(after, here)) return here;
  const slope = catmullRomSlope(before, here, after, 0.5);
  const third = (side * knotSpacing(here, towards, 0.5)) / 3;
  return [here[0] + slope[0] * third, here[1] + slope[1] * third, here[2] + slope[2] * third];
}

function neighbour(points: readonly ActivePoint[], i: number, closed: boolean, side: -1 | 1): Vec3 {
  const n = points.length;
  const j = i + side;
  if (closed || (j >= 0 && j < n)) return points[(j + n) % n].position;
  return reflectedNeighbour(points[i].position, points[i - side].position);
}

function isSame(a: Vec3, b: Vec3): boolean {
  return a[0] === b[0] && a[1] === b[1] && a[2] === b[2];
}
