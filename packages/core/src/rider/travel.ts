import type { Hitch } from '../document/shot-hitch.js';
import type { Course } from './course.js';
import { displaceFrame } from './displace.js';

/**
 * Writes the frame of travel at a (fractional) frame into `out`: the rider's place with its offset, left, up
 * and forward; `ahead` metres further along the path where that is asked for.
 *
 * @returns the distance along the path, held to the ends of an open one
 */
export type Travel = (frame: number, out: Float64Array, ahead?: number) => number;

/** Where a rider is on its path over time, and which ways are left, up and forward there. */
export function compileTravel({ displaced }: Hitch, { path, pace, standing, offset }: Course): Travel {
  return (frame, out, ahead = 0) => {
    const asked = pace.distance(frame) + ahead;
    const distance = path.closed ? asked : Math.min(path.length, Math.max(0, asked));
    standing.frame(distance, out);
    const { side, rise } = offset.at(frame);
    for (let k = 0; k < 3; k++) out[k] += side * out[3 + k] + rise * out[6 + k];
    if (displaced) displaceFrame(displaced, out);
    return distance;
  };
}
