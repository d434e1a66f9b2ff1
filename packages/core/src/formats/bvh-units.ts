import { quat } from 'gl-matrix';
import { RADIANS } from '../geometry/math/angle.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import type { BvhJoint, BvhMotion, BvhChannel } from './bvh-grammar.js';

/** Units that figures are recorded in, metres each, the most usual first. */
const UNITS = [1, 0.01, 0.0254, 0.001, 0.3048];
/** How tall who is recorded is, as a rule, and between what. */
const PERSON = { tall: 1.75, least: 1.1, most: 2.4 };
/** How high hips are, as a part of how tall one is. */
const HIPS = 0.53;
/** In metres a figure may be a child or a giant. */
const METRES = { least: 0.5, most: 4 };

/** Metres of a unit of the file: that which makes of its figure a person, or else as much as does. */
export function metresPerUnit({ joints, motion }: BvhMotion): number {
  const height = heightOf(joints, motion);
  if (!(height > 0) || (height >= METRES.least && height <= METRES.most)) return 1;
  const unit = UNITS.find((one) => height * one >= PERSON.least && height * one <= PERSON.most);
  return unit ?? PERSON.tall / height;
}

/** How tall the figure is in its first frame, in the file's own unit: as long as its offsets reach. */
function heightOf(joints: readonly BvhJoint[], motion: readonly number[][]): number {
  const heights: number[] = [];
  joints.forEach(({ parent, offset }, i) => {
    heights[i] = (parent < 0 ? 0 : heights[parent]) + offset[1];
  });
  const reach = Math.max(...heights) - Math.min(...heights);
  // Of a figure with few bones the hips give its height, in whichever column that is.
  const column = joints[0]?.channels.indexOf('Yposition') ?? -1;
  return column < 0 ? reach : Math.max(reach, Math.abs(motion[0]?.[column] ?? 0) / HIPS);
}

/** The turn of Euler angles in the order they are listed: the first outermost. */
export function turnOf(channels: readonly BvhChannel[], frame: readonly number[], at: number): Quat {
  const turn: Quat = [0, 0, 0, 1];
  channels.forEach((channel, k) => {
    if (!channel.endsWith('rotation')) return;
    const axis = [0, 0, 0].map((_, n) => (channel[0] === 'XYZ'[n] ? 1 : 0)) as Vec3;
    quat.multiply(turn, turn, quat.setAxisAngle([0, 0, 0, 1], axis, frame[at + k] * RADIANS));
  });
  return turn;
}
