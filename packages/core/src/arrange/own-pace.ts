import type { PacedBy } from '../document/shot-hitch.js';
import type { Pace } from '../document/shot-pace.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { curveRidden } from '../path/compiled-path-of.js';
import { changeUnit } from '../pace/change-unit.js';
import { compilePace } from '../pace/compile-pace.js';
import { timesAsFast, withFrames } from '../pace/in-time.js';
import { POSE } from '../pose/pose.js';
import { poseOfRider } from './change-rider.js';

/**
 * A rider that took its time from another, or hung behind it, with a pace of its own that does the same.
 * What hung behind another keeps the distance it has at the first frame.
 */
export function withOwnPace(shot: Shot, rider: Rider): Rider {
  const { hitch } = rider;
  if (hitch === null || (hitch.follows === null && hitch.pacedBy === null)) return rider;
  const free = { ...hitch, follows: null, pacedBy: null };
  const curve = curveRidden(shot, rider);
  const own = paceInMetres(shot, rider);
  if (own === null || curve === null) return { ...rider, hitch: free };
  const inUnit = changeUnit(own, hitch.pace.unit, curve.length);
  if (hitch.follows === null) return { ...rider, hitch: { ...free, pace: inUnit } };
  const { first } = shot.range;
  const starts = compilePace(own, shot.fps, curve).distance(first);
  const along = poseOfRider(shot, rider.id, first)[POSE.distance] - starts;
  return { ...rider, hitch: { ...free, pace: inUnit, offset: { ...hitch.offset, along } } };
}

/**
 * The pace a rider goes by in the end, in metres, without offsets along the path. Null where a leader rides
 * nothing.
 */
function paceInMetres(shot: Shot, rider: Rider): Pace | null {
  const { hitch } = rider;
  const curve = curveRidden(shot, rider);
  if (!hitch || curve === null) return null;
  const leader = shot.riders.find(({ id }) => id === (hitch.follows ?? hitch.pacedBy)?.rider);
  if (leader === undefined) return changeUnit(hitch.pace, 'metres', curve.length);
  const pace = paceInMetres(shot, leader);
  return pace && hitch.pacedBy ? laterPace(pace, hitch.pacedBy, shot.range.first) : pace;
}

function laterPace(pace: Pace, { delay, rate }: PacedBy, first: number): Pace {
  return timesAsFast(withFrames(pace, { from: first, to: first + delay, scale: 1 / rate }), rate);
}
