import { sourceFrame } from '../motion/timing/retiming.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { framesText, stretchesOver } from './stretches.js';

/** A rider that needs ground where there is none: the shot has none, or none is in its band. */
export function findNoGround(look: RiderLook): RawFinding[] {
  const { rider, evaluated, first, count } = look;
  const { shot, assets } = evaluated;
  const { attachment } = rider;
  if (attachment === null) return [];
  if (attachment.ground.mode !== 'stick' && attachment.facing.reference !== 'ground') return [];
  if (assets.ground === null && shot.ground.model === null)
    return [
      found(
        'loose-end',
        'warning',
        { rider: rider.id },
        ({ rider: badge }) =>
          `${badge(rider.id)} needs ground, but the shot has none; choose one at the Contact step.`,
      ),
    ];
  if (assets.ground === null) return [];
  const { groundFit, progress } = evaluated.contact(rider);
  if (groundFit === null) return [];
  const missing = (i: number) => (groundFit.missing(progress(sourceFrame(shot, first + i))) ? 1 : 0);
  const { up, down } = attachment.ground;
  return stretchesOver(look, count, 0, missing).map(({ frame, from, to }) =>
    found(
      'off-ground',
      'warning',
      { rider: rider.id, from, to, frame, distance: look.distanceAt(frame) },
      ({ rider: badge }) =>
        `Under ${badge(rider.id)} there is no ground within ${up} m above and ${down} m below its path ${framesText({ from, to })}; it keeps the last good height.`,
    ),
  );
}
