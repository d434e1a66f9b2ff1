import { vec3 } from 'gl-matrix';
import { GRAVITY } from '../geometry/math/gravity.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { aboutStretch } from './about-stretch.js';
import { framesText, stretchesOver } from './stretches.js';

/** Speed that changes by more than anything could, from one frame to the next, and places that leap. */
export function findJolts(look: RiderLook): RawFinding[] {
  const { rider, limits } = look;
  const onFoot = rider.kind === 'character' || rider.kind === 'creature';
  const limit = onFoot ? limits.joltOnFoot : limits.jolt;
  const jolts = inSpeed(look, limit);
  const told = (frame: number) =>
    jolts.some(({ from, to }) => frame >= (from ?? 0) - 1 && frame <= (to ?? 0) + 1);
  return [...jolts, ...leaps(look, limit).filter(({ frame }) => !told(frame ?? NaN))];
}

function inSpeed(look: RiderLook, limit: number): RawFinding[] {
  const { rider, fps, count } = look;
  // A rider that follows another, or takes its timing, jolts with it: the finding is the leader's.
  if (look.curve === null || rider.attachment?.coupledTo || rider.attachment?.pacedBy) return [];
  const change = (i: number) => (i === 0 ? 0 : (Math.abs(look.speed(i) - look.speed(i - 1)) * fps) / GRAVITY);
  return stretchesOver(look, count, limit, change).map(({ worst, frame, ...frames }) =>
    found(
      'jolt',
      'warning',
      aboutStretch(
        look,
        { ...frames, frame, worst },
        'g',
        rider.attachment?.pace.mode === 'keys' ? 'smooth-keys' : 'drive',
      ),
      ({ rider: badge }) => {
        const [before, after] = [look.speed(frame - look.first - 1), look.speed(frame - look.first)];
        return `${badge(rider.id)} jolts from ${before.toFixed(1)} to ${after.toFixed(1)} m/s within one frame (${worst.toFixed(1)} g), ${framesText(frames)}.`;
      },
    ),
  );
}

/**
 * A place that leaps within a frame, whatever moves it: pushed one way by more than anything could, and back the other way with the
 * next frame. Bends push on the same way, and what just sets off is not pushed back.
 */
function leaps(look: RiderLook, limit: number): RawFinding[] {
  const { rider, fps, count, poses } = look;
  const { attachment, shake } = rider;
  if (!look.moves || shake !== null || attachment?.coupledTo || attachment?.pacedBy) return [];
  // A cycle that begins again jumps to its start.
  if (attachment?.pace.before === 'repeat' || attachment?.pace.after === 'repeat') return [];
  const push = (i: number): Vec3 => {
    const [a, b, c] = [look.at(i - 1), look.at(i), look.at(i + 1)];
    return [0, 1, 2].map((k) => poses[a + k] - 2 * poses[b + k] + poses[c + k]) as Vec3;
  };
  const leap = (i: number): number => {
    if (i < 2 || i + 1 >= count) return 0;
    const [before, after] = [push(i - 1), push(i)];
    if (vec3.dot(before, after) >= 0) return 0;
    const least = Math.min(vec3.length(before), vec3.length(after));
    return (least * fps * fps) / GRAVITY > limit ? least : 0;
  };
  return stretchesOver(look, count, 0, leap).map(({ worst, frame, ...frames }) =>
    found(
      'jolt',
      'warning',
      aboutStretch(look, { ...frames, frame, worst }, 'm', null),
      ({ rider: badge }) =>
        `${badge(rider.id)} leaps by ${worst.toFixed(2)} m within one frame, ${framesText(frames)}.`,
    ),
  );
}
