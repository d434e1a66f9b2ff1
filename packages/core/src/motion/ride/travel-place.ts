import type { Attachment } from '../../document/shot-attachment.js';

import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { moveBeside } from '../pose/beside.js';
import { displaceFrame } from '../pose/displace.js';
import type { AxlePlacement } from './axle-placement.js';
import { pastEnd } from './beyond-ends.js';

/**
 * Writes the frame of travel (position, left, up, forward) at a distance along the path, moved aside and up.
 */
export type PlaceAlong = (distance: number, side: number, rise: number, out: Float64Array) => void;

/** Position of a rider by its distance along the path, before it is set on any ground. */
export function placeAlong(
  { rideTransform }: Attachment,
  { placement }: { readonly placement: Pick<AxlePlacement, 'frame'> },
): PlaceAlong {
  return (distance, side, rise, out) => {
    placement.frame(distance, out);
    moveBeside(out, side, rise, out);
    if (rideTransform) displaceFrame(rideTransform, out);
  };
}

/**
 * How much longer the way of something beside a path is than the path's own: 1 − κ · side − κ′ · rise, with the path's curvature
 * towards its left and towards its up. Negative beyond the middle of the bend.
 *
 * @param frame the frame of travel there, before it is displaced
 */
export function besideFactor(
  path: CompiledPath,
  distance: number,
  side: number,
  rise: number,
  frame: Float64Array,
): number {
  if ((side === 0 && rise === 0) || pastEnd(path, distance) !== 0) return 1;
  const x = side * frame[3] + rise * frame[6];
  const y = side * frame[4] + rise * frame[7];
  const z = side * frame[5] + rise * frame[8];
  return 1 - path.curvatureTowards(distance, x, y, z);
}

/** Whether an attachment says a rider's place and heading by its distance alone, whenever it is there. */
export function ridesByDistance({ offsetKeys, influence, facing }: Attachment): boolean {
  return (
    offsetKeys.length === 0 &&
    influence.length === 0 &&
    facing.mode === 'path' &&
    facing.along === 'path' &&
    facing.influence.length === 0
  );
}
