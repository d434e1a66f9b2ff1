import type { Hitch } from '../document/shot-hitch.js';
import type { PathMotion } from './path-motion.js';
import type { GroundFit } from './ground-fit.js';
import { placeAlong } from './travel-place.js';

/**
 * Writes the frame of travel at a (fractional) frame into `out`: the rider's place with its offset, left, up
 * and forward; `ahead` metres further along the path where that is asked for.
 *
 * @returns the distance along the path, held to the ends of an open one
 */
export type Travel = (frame: number, out: Float64Array, ahead?: number) => number;

/** Where a rider is on its path over time, and which ways are left, up and forward there; on the ground, if it is set there. */
export function compileTravel(hitch: Hitch, motion: PathMotion, ground: GroundFit | null): Travel {
  const { path, pace, offset } = motion;
  const place = placeAlong(hitch, motion);
  return (frame, out, ahead = 0) => {
    const asked = pace.distance(frame) + ahead;
    const distance = path.closed ? asked : Math.min(path.length, Math.max(0, asked));
    const { side, rise } = offset.at(frame);
    place(distance, side, rise, out);
    ground?.settle(ground.byDistance ? distance : frame, out, rise);
    return distance;
  };
}
