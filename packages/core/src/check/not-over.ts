import { compiledPaceOf } from '../pace/compiled-pace-of.js';
import { offsetAt } from '../pose/keyed-offset.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** What is missing of a way that nobody sees: metres, and a part of the path. */
const NEAR = 0.01;
const PART = 1e-4;
/** It is there when it is as near as this, metres. */
const THERE = 1e-5;
/** A ride that takes longer than so many frames is not looked for the end of. */
const MOST_FRAMES = 100_000;

/** Rides that are not over when the range is: driven or at a speed along an open path, or slowed down by a retime. */
export function findNotOver(look: RiderLook): RawFinding[] {
  const { rider, curve, evaluated, count, first } = look;
  const { shot } = evaluated;
  if (rider.hitch === null || curve === null || curve.closed || shot.loop) return [];
  const { pace, follows, pacedBy } = rider.hitch;
  if (follows || pacedBy || pace.within !== null) return [];
  const goal = goalOf(look, curve.length);
  if (goal === null) return [];
  const last = shot.range.last;
  const tolerance = NEAR + PART * curve.length;
  const missing = Math.abs(goal - look.distance(count - 1) + offsetAt(rider.hitch, last).along);
  if (missing <= tolerance) return [];
  const over = overAt(look, goal);
  return [
    found(
      'not-over',
      'note',
      {
        rider: rider.id,
        path: rider.hitch.path,
        from: last,
        to: over ?? last,
        frame: last,
        distance: look.distance(count - 1),
        figure: missing,
        unit: 'm',
        remedy: over === null ? null : 'make-range',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} is ${missing.toFixed(2)} m from where its ride ends when the range is over${over === null ? '.' : `: it needs ${over - first + 1} frames, the range has ${count}.`}`,
    ),
  ];
}

/** Where a ride is to come to, metres along its path; null where it comes to it, or to nowhere. */
function goalOf({ rider, evaluated, curve }: RiderLook, length: number): number | null {
  const { hitch } = rider;
  if (hitch === null || curve === null) return null;
  const { pace } = hitch;
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

/** The frame at which a ride is over; null where that is not told, or too late. */
function overAt({ rider, evaluated }: RiderLook, goal: number): number | null {
  const motion = evaluated.motion(rider);
  if (motion === null || rider.hitch === null || evaluated.retiming !== null) return null;
  const { along } = rider.hitch.offset;
  const { last } = evaluated.shot.range;
  const isThere = (frame: number) => Math.abs(motion.distance(frame) - along - goal) <= THERE;
  let step = 1;
  while (!isThere(last + step)) {
    step *= 2;
    if (step > MOST_FRAMES) return null;
  }
  let [before, there] = [last + Math.floor(step / 2), last + step];
  while (there - before > 1) {
    const middle = Math.floor((before + there) / 2);
    if (isThere(middle)) there = middle;
    else before = middle;
  }
  return there;
}
