import { GRAVITY } from '../math/gravity.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesOf, stretchesOver } from './stretches.js';

/** Speed that changes by more than anything could, from one frame to the next. */
export function findJolts(look: RiderLook): RawFinding[] {
  const { rider, limits, fps, count } = look;
  // What hangs behind another or goes by its timing is jolted with it: that one is told of.
  if (look.curve === null || rider.hitch?.follows || rider.hitch?.pacedBy) return [];
  const onFoot = rider.kind === 'character' || rider.kind === 'creature';
  const limit = onFoot ? limits.joltOnFoot : limits.jolt;
  const change = (i: number) => (i === 0 ? 0 : (Math.abs(look.speed(i) - look.speed(i - 1)) * fps) / GRAVITY);
  return stretchesOver(look, count, limit, change).map(({ worst, frame, ...frames }) =>
    found(
      'jolt',
      'warning',
      aboutStretch(
        look,
        { ...frames, frame, worst },
        'g',
        rider.hitch?.pace.mode === 'keys' ? 'smooth-keys' : 'drive',
      ),
      ({ rider: badge }) => {
        const [before, after] = [look.speed(frame - look.first - 1), look.speed(frame - look.first)];
        return `${badge(rider.id)} jolts from ${before.toFixed(1)} to ${after.toFixed(1)} m/s within one frame (${worst.toFixed(1)} g), ${framesOf(frames)}.`;
      },
    ),
  );
}
