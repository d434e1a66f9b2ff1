import { quat } from 'gl-matrix';
import { RADIANS } from '../math/angle.js';
import type { Quat, Vec3 } from '../math/vec.js';
import type { BvhJoint, BvhMotion, Channel } from './bvh-grammar.js';

/** A figure taller than this is not in metres, but in centimetres. */
const TALLEST = 10;

/** Metres of a unit of the file. */
export function metresPerUnit({ joints, motion }: BvhMotion): number {
  return heightOf(joints, motion) > TALLEST ? 0.01 : 1;
}

/** How tall the figure is in its first frame, in the file's own unit: as long as its offsets reach. */
function heightOf(joints: readonly BvhJoint[], motion: readonly number[][]): number {
  const heights: number[] = [];
  joints.forEach(({ parent, offset }, i) => {
    heights[i] = (parent < 0 ? 0 : heights[parent]) + offset[1];
  });
  return Math.max(Math.max(...heights) - Math.min(...heights), Math.abs(motion[0]?.[1] ?? 0));
}

/** The turn of Euler angles in the order they are listed: the first outermost. */
export function turnOf(channels: readonly Channel[], frame: readonly number[], at: number): Quat {
  const turn: Quat = [0, 0, 0, 1];
  channels.forEach((channel, k) => {
    if (!channel.endsWith('rotation')) return;
    const axis = [0, 0, 0].map((_, n) => (channel[0] === 'XYZ'[n] ? 1 : 0)) as Vec3;
    quat.multiply(turn, turn, quat.setAxisAngle([0, 0, 0, 1], axis, frame[at + k] * RADIANS));
  });
  return turn;
}
