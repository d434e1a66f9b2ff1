import type { Vec3 } from '../geometry/math/vec.js';
import { ownAxes } from '../motion/ride/contact-points.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';

/** For what has no wheels, metres: a step no leg takes. */
const STEP = 0.4;
/** Steeper than half a right angle the ground is not driven or walked up. */
const STEEPEST = 1;

/** A rider on the ground that changes to another level of it within a frame. */
export function findLevelJumps(look: RiderLook): RawFinding[] {
  const { rider, curve, evaluated, first, count, poses } = look;
  if (curve === null || rider.attachment?.ground.mode !== 'stick' || evaluated.assets.ground === null)
    return [];
  const { scale } = ownAxes(rider);
  const limit =
    rider.wheels.length > 0 ? Math.min(...rider.wheels.map(({ radius }) => radius * scale[2])) : STEP;
  const place: Vec3 = [0, 0, 0];
  const over = Float64Array.from({ length: count }, (_, i) => {
    curve.position(look.distance(i), place);
    return poses[look.at(i) + 1] - place[1];
  });
  /** How far it is lifted or dropped by the ground within a frame, where that is steeper than anything climbs. */
  const jump = (i: number): number => {
    if (i === 0) return 0;
    const step = Math.abs(over[i] - over[i - 1]);
    return step > STEEPEST * Math.abs(look.distance(i) - look.distance(i - 1)) ? step : 0;
  };
  return stretchesOver(look, count, limit, jump).map(({ frame, from, to }) => {
    // One that drops and comes up again ends where it began.
    const levels = over.subarray(from - first - 1, to - first + 1);
    const worst = Math.max(...levels) - Math.min(...levels);
    return found(
      'level-jump',
      'fault',
      {
        rider: rider.id,
        from,
        to,
        frame,
        distance: look.distanceAt(frame),
        figure: worst,
        unit: 'm',
        fix: 'narrow-band',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} jumps ${worst.toFixed(2)} m to another level of the ground, ${framesText({ from: from - 1, to: to })}.`,
    );
  });
}
