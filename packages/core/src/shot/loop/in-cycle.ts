import type { Rider } from '../../document/shot-rider.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { sourceFrame } from '../../motion/timing/retiming.js';

/** Change over a cycle, from the begin of a rider's seam partner to the end of the rider itself. */
export interface InCycle {
  /** Metres along the path; 0 for one that rides none. */
  readonly moved: number;
  /** By how much it is faster or slower at the end, m/s. */
  readonly quicker: number;
  /** Seconds of the work under bent time. */
  readonly seconds: number;
}

export function inCycle({ shot, motion }: EvaluatedShot, rider: Rider, partnerId: string): InCycle {
  const own = motion(rider);
  const partner = shot.riders.find(({ id }) => id === partnerId) ?? rider;
  const other = motion(partner);
  // A retimed motion is asked in its own time.
  const [last, first] = [shot.range.last + 1, shot.range.first].map((frame) => sourceFrame(shot, frame));
  const both = own !== null && other !== null;
  return {
    moved: both ? own.distance(last) - other.distance(first) : 0,
    quicker: both ? Math.abs(own.speed(last) - other.speed(first)) : 0,
    seconds: (last - first) / shot.fps,
  };
}
