import type { Hitch } from '../document/shot-hitch.js';
import type { PathMotion } from './path-motion.js';
import { displaceFrame } from '../pose/displace.js';

/** Writes the frame of travel (position, left, up, forward) at a distance along the path, moved aside and up. */
export type PlaceAlong = (distance: number, side: number, rise: number, out: Float64Array) => void;

/** Where a rider is by its distance along the path, before it is set on any ground. */
export function placeAlong({ displaced }: Hitch, { placement }: PathMotion): PlaceAlong {
  return (distance, side, rise, out) => {
    placement.frame(distance, out);
    for (let k = 0; k < 3; k++) out[k] += side * out[3 + k] + rise * out[6 + k];
    if (displaced) displaceFrame(displaced, out);
  };
}

/** Whether a rider's place and heading follow from its distance alone, whenever it is there. */
export function ridesByDistance({ offsetKeys, influence, facing }: Hitch): boolean {
  return (
    offsetKeys.length === 0 &&
    influence.length === 0 &&
    facing.mode === 'path' &&
    facing.influence.length === 0
  );
}
