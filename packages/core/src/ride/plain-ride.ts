import type { Hitch } from '../document/shot-hitch.js';
import type { Quat } from '../math/vec.js';
import { frameRotation } from '../pose/frame-rotation.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import type { PathMotion } from './path-motion.js';

/** Whether a rider is where its path is and turned as it goes there, at all frames: nothing else moves or turns it. */
export function isPlain({ bank, displaced, facing, influence, offset, offsetKeys }: Hitch): boolean {
  return (
    offsetKeys.length === 0 &&
    offset.side === 0 &&
    offset.rise === 0 &&
    displaced === null &&
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
  return (frame, out, at) => {
    const distance = pace.distance(frame);
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
    const part = 1 / Math.sqrt(x * x + y * y + z * z + w * w);
    out[at] = way[0];
    out[at + 1] = way[1];
    out[at + 2] = way[2];
    out[at + 3] = x * part;
    out[at + 4] = y * part;
    out[at + 5] = z * part;
    out[at + 6] = w * part;
    out[at + POSE.distance] = distance;
    out[at + POSE.speed] = pace.speed(frame);
    out[at + POSE.bank] = 0;
  };
}
