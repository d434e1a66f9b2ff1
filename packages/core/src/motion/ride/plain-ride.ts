import type { Attachment } from '../../document/shot-attachment.js';
import type { Quat } from '../../geometry/math/vec.js';
import { frameRotation } from '../pose/frame-rotation.js';
import { bothOf } from '../pace/compiled-pace.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import type { PathMotion } from './path-motion.js';

/** Whether a rider is where its path is and turned as it goes there, at all frames: nothing else moves or turns it. */
export function isPlain({ bank, rideTransform, facing, influence, offset, offsetKeys }: Attachment): boolean {
  return (
    offsetKeys.length === 0 &&
    offset.side === 0 &&
    offset.rise === 0 &&
    rideTransform === null &&
    influence.length === 0 &&
    bank.mode === 'none' &&
    facing.mode === 'path' &&
    facing.along === 'path' &&
    facing.influence.length === 0
  );
}

/**
 * The ride of most of a crowd, without a question to what does not move it.
 *
 * @param own how it is turned in its frame of travel
 */
export function plainRide({ pace, placement }: PathMotion, own: Quat): PoseAt {
  const [a, b, c, d] = own;
  const way = new Float64Array(12);
  const turn: Quat = [0, 0, 0, 1];
  const both = bothOf(pace);
  const going = new Float64Array(2);
  return (frame, out, at) => {
    both(frame, going);
    const distance = going[0];
    placement.frame(distance, way);
    frameRotation(way, turn);
    const p = turn[0];
    const q = turn[1];
    const r = turn[2];
    const s = turn[3];
    const x = p * d + s * a + q * c - r * b;
    const y = q * d + s * b + r * a - p * c;
    const z = r * d + s * c + p * b - q * a;
    const w = s * d - p * a - q * b - r * c;
    out[at] = way[0];
    out[at + 1] = way[1];
    out[at + 2] = way[2];
    out[at + 3] = x;
    out[at + 4] = y;
    out[at + 5] = z;
    out[at + 6] = w;
    out[at + POSE.distance] = distance;
    out[at + POSE.speed] = going[1];
    out[at + POSE.bank] = 0;
  };
}
