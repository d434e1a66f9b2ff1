import { LIMITS } from '../document/limits.js';
import { compiledPaceOf } from '../motion/pace/compiled-pace-of.js';
import { offsetAt } from '../motion/pose/keyed-offset.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** A ride that ends this near to its goal counts as there: metres, and a part of the path's length. */
const NEAR = 0.01;
const PART = 1e-4;
/** The frame that is proposed is the first at which the ride is this near to its goal, metres. */
const THERE = 1e-5;

/** Rides that are not over when the range is: driven or at a speed along an open path, or slowed down by a retime. */
export function findNotOver(look: RiderLook): RawFinding[] {
  const { rider, curve, evaluated, count, first } = look;
  const { shot } = evaluated;
  if (rider.attachment === null || curve === null || curve.closed || shot.loop) return [];
  const { pace, coupledTo, pacedBy } = rider.attachment;
  if (coupledTo || pacedBy || pace.within !== null) return [];
  const goal = goalOf(look, curve.length);
  if (goal === null) return [];
  const last = shot.range.last;
  const tolerance = NEAR + PART * curve.length;
  const missing = Math.abs(goal - look.distance(count - 1) + offsetAt(rider.attachment, last).along);
  if (missing <= tolerance) return [];
  const over = overAt(look, goal);
  return [
    found(
      'not-over',
      'note',
      {
        rider: rider.id,
        path: rider.attachment.path,
        from: last,
        to: over ?? last,
        frame: last,
        distance: look.distance(count - 1),
        figure: missing,
        unit: 'm',
        fix: over === null ? null : 'make-range',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} is still ${missing.toFixed(2)} m from its end at the last frame${over === null ? '.' : `: its ride takes ${over - first + 1} frames, the range has ${count}.`}`,
    ),
  ];
}

/** The distance along its path that a ride is to reach, metres; null for rides that need not reach one. */
function goalOf({ rider, evaluated, curve }: RiderLook, length: number): number | null {
  const { attachment } = rider;
  if (attachment === null || curve === null) return null;
  const { pace } = attachment;
  if (pace.mode === 'drive') return pace.drive.way === 'along' ? length : 0;
  if (pace.mode === 'speed') {
    const speed = pace.speeds.at(-1)?.speed ?? 0;
    return speed === 0 ? null : speed > 0 ? length : 0;
  }
  // Keys end where they end, unless time is bent so that they are not all seen.
  const { shot } = evaluated;
  const { range, fps } = shot;
  const key = pace.keys.at(-1);
  const isBent = shot.retimes.some(
    ({ riders, off }) => !off && (riders.length === 0 || riders.includes(rider.id)),
  );
  if (!isBent || key === undefined || key.frame > range.last) return null;
  const end = compiledPaceOf(pace, fps, curve).distance(key.frame);
  return Math.min(length, Math.max(0, end));
}

/** Frame at which a ride is over; null if unknown, or too late. */
function overAt({ rider, evaluated }: RiderLook, goal: number): number | null {
  const motion = evaluated.motion(rider);
  if (motion === null || rider.attachment === null || evaluated.retiming !== null) return null;
  const { attachment } = rider;
  const { first, last } = evaluated.shot.range;
  const isThere = (frame: number) =>
    Math.abs(motion.distance(frame) - offsetAt(attachment, frame).along - goal) <= THERE;
  let step = 1;
  while (!isThere(last + step)) {
    step *= 2;
    if (step > 2 * LIMITS.frames) return null;
  }
  let [before, there] = [last + Math.floor(step / 2), last + step];
  while (there - before > 1) {
    const middle = Math.floor((before + there) / 2);
    if (isThere(middle)) there = middle;
    else before = middle;
  }
  return there - first < LIMITS.frames ? there : null;
}
