import { findKinks, type Kink } from '../geometry/path/path-facts.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** Below this speed the corner is invisible, m/s. */
const MOVING = 0.1;

/** Corners of its path that a rider passes while it moves. One that hangs behind another passes where that one did. */
export function findCorners(look: RiderLook): RawFinding[] {
  const { curve, rider, limits, first, count } = look;
  if (curve === null || rider.attachment === null || rider.attachment.coupledTo) return [];
  const kinks = findKinks(curve).filter(({ angleDeg }) => angleDeg > limits.corner);
  if (kinks.length === 0) return [];
  const passed: { kink: Kink; frame: number; speed: number }[] = [];
  for (const kink of kinks) {
    for (let i = 1; i < count; i++) {
      const [before, after] = [look.distance(i - 1), look.distance(i)];
      if (before === after || !passes(kink.distance, before, after, curve)) continue;
      const speed = Math.max(Math.abs(look.speed(i - 1)), Math.abs(look.speed(i)));
      if (speed < MOVING) continue;
      passed.push({ kink, frame: first + i, speed });
      break;
    }
  }
  if (passed.length === 0) return [];
  const worst = passed.reduce((a, b) => (b.kink.angleDeg > a.kink.angleDeg ? b : a));
  const { distance, angleDeg } = worst.kink;
  return [
    found(
      'kink',
      'warning',
      {
        rider: rider.id,
        path: rider.attachment.path,
        from: worst.frame,
        to: worst.frame,
        frame: worst.frame,
        distance,
        figure: angleDeg,
        unit: '°',
        fix: 'round-corner',
      },
      ({ rider: badge, path }) =>
        `${badge(rider.id)} turns ${angleDeg.toFixed(0)}° at once at ${distance.toFixed(2)} m of ${path(rider.attachment?.path ?? '')}, at ${worst.speed.toFixed(1)} m/s (frame ${worst.frame})${
          passed.length > 1 ? `, and at ${passed.length - 1} more corners` : ''
        }.`,
    ),
  ];
}

/** Whether a place of a path is come by on the way from one distance to another. */
function passes(
  place: number,
  before: number,
  after: number,
  { closed, length }: { readonly closed: boolean; readonly length: number },
): boolean {
  const [low, high] = before < after ? [before, after] : [after, before];
  if (!closed) return place > low && place <= high;
  return Math.floor((high - place) / length) > Math.floor((low - place) / length);
}
