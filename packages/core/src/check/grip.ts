import { found, type RawFinding } from './finding.js';
import { GRAVITY } from '../geometry/math/gravity.js';
import { gripOf } from '../motion/pace/grip-of.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** A drive keeps to its limit but for what softens it. */
const SLACK = 1.02;

/** A vehicle that is pressed sideways by more than its tyres hold, or its own drive allows. */
export function findGrip(look: RiderLook): RawFinding[] {
  const { rider, limits, evaluated, first, count } = look;
  // A towed unit takes its bends as its leader does.
  if (
    rider.kind !== 'vehicle' ||
    look.curve === null ||
    rider.attachment === null ||
    rider.attachment.coupledTo
  )
    return [];
  const { pace } = rider.attachment;
  const own = pace.mode === 'drive' && !rider.attachment.pacedBy ? gripOf(pace.drive) : Infinity;
  const limit = Math.min(limits.grip, own * SLACK);
  const push = evaluated.sideways(rider);
  const press = (i: number) => Math.abs(push(first + i)) / GRAVITY;
  return stretchesOver(look, count, limit, press).map(({ worst, frame, ...frames }) =>
    found(
      'grip',
      'warning',
      aboutStretch(look, { ...frames, frame, worst }, 'g', rider.attachment?.pacedBy ? null : 'drive'),
      ({ rider: badge }) =>
        `${badge(rider.id)} enters the bend at ${Math.abs(look.speed(frame - first)).toFixed(1)} m/s: ${worst.toFixed(2)} g sideways at frame ${frame}, where ${limit.toFixed(2)} g is the limit; ${framesText(frames)}.`,
    ),
  );
}
