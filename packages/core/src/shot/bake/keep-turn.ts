import { quat } from 'gl-matrix';
import { withAttachment } from '../edits/change-rider.js';
import { defaultsOf } from '../../document/defaults.js';
import { Bank, type Offset, type OffsetKey } from '../../document/shot-attachment.js';
import type { Shot } from '../../document/shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { DEGREES } from '../../geometry/math/angle.js';
import { withoutDust } from '../../document/dust.js';
import { keepWithin } from '../../geometry/math/keep-within.js';
import type { Quat } from '../../geometry/math/vec.js';
import { axesToTravel } from '../../motion/pose/axes.js';
import { anglesOf, offsetRotation } from '../../motion/pose/offset-rotation.js';
import { POSE, rotationIn } from '../../motion/pose/pose.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { risingFrames } from '../../motion/timing/rising-frames.js';
import { sampleRider } from './sample-shot.js';
import { frameOfSample, workTime } from './work-samples.js';

/** Rotations within this error at all frames are left; keys of a rotation have this tolerance, degrees. */
const NEAR_DEG = 0.4;

type Angles = Pick<Offset, 'yaw' | 'pitch' | 'roll'>;

/**
 * The shot with a rider on a path rotated as in another shot, at every frame: by its offset in the frame of its
 * travel, keyed if one offset is not enough.
 *
 * @param other the same shot, with the rider moved in another way
 */
export function withTurnOf(shot: Shot, other: Shot, assets: SceneAssets, id: string): Shot {
  const [wanted, now] = [other, shot].map((one) => rotationsOf(one, assets, id).rotations);
  if (now.every((rotation, i) => degreesBetween(rotation, wanted[i]) <= NEAR_DEG)) return shot;
  const plain = withAttachment(shot, id, (attachment) => ({
    ...attachment,
    bank: { ...attachment.bank, mode: defaultsOf(Bank).mode },
    offset: { ...attachment.offset, yaw: 0, pitch: 0, roll: 0 },
  }));
  const { facing, offset } = plain.riders.find((rider) => rider.id === id)!.attachment!;
  const toModel = quat.conjugate([0, 0, 0, 1], axesToTravel(facing.forward, facing.up)) as Quat;
  const { rotations, frames, kept } = rotationsOf(plain, assets, id);
  const turns = kept.map((i): Quat => {
    const travel = quat.multiply([0, 0, 0, 1], rotations[i], toModel);
    const turn = quat.multiply([0, 0, 0, 1], quat.conjugate(travel, travel), wanted[i]);
    return quat.multiply([0, 0, 0, 1], turn, toModel) as Quat;
  });
  const angles = unwound(turns.map((turn) => cleaned(anglesOf(turn))));
  if (turns.every((turn) => degreesBetween(turn, turns[0]) <= NEAR_DEG))
    return withAttachment(plain, id, (attachment) => ({
      ...attachment,
      offset: { ...offset, ...angles[0] },
    }));
  const off = (from: number, to: number, i: number): number => {
    const part = (frames[i] - frames[from]) / (frames[to] - frames[from]);
    const between = (of: keyof Angles) => angles[from][of] + part * (angles[to][of] - angles[from][of]);
    return degreesBetween(
      offsetRotation({ yaw: between('yaw'), pitch: between('pitch'), roll: between('roll') }),
      turns[i],
    );
  };
  const offsetKeys = keepWithin(frames.length, off, NEAR_DEG).map((i): OffsetKey => ({
    ...offset,
    ...angles[i],
    frame: frames[i],
    ease: 'linear',
  }));
  return withAttachment(plain, id, (attachment) => ({
    ...attachment,
    offset: { ...offset, ...angles[0] },
    offsetKeys,
  }));
}

/** Rotations of a rider at every sample; the samples that its keys can use, and their frames in its own time. */
function rotationsOf(shot: Shot, assets: SceneAssets, id: string) {
  const time = workTime(shot, assets);
  const index = shot.riders.findIndex((rider) => rider.id === id);
  const poses = sampleRider(time.evaluated.poses[index], time.first, time.count, time.step);
  const { own } = mapFrames(time.evaluated.timing(shot.riders[index])?.steps ?? [], shot.range);
  const samples = Array.from({ length: time.count }, (_, i) => frameOfSample(time, i));
  const kept = risingFrames(samples, own);
  return {
    rotations: samples.map((_, i) => rotationIn(poses, i * POSE.size)),
    kept,
    frames: kept.map((i) => own(samples[i])),
  };
}

const degreesBetween = (a: Quat, b: Quat): number => {
  const between = quat.multiply([0, 0, 0, 1], quat.conjugate([0, 0, 0, 1], a), b);
  return 2 * Math.atan2(Math.hypot(between[0], between[1], between[2]), Math.abs(between[3])) * DEGREES;
};

const cleaned = ({ yaw, pitch, roll }: Angles): Angles => ({
  yaw: withoutDust(yaw),
  pitch: withoutDust(pitch),
  roll: withoutDust(roll),
});

/** Angles that go on from those before instead of leaping by whole turns. */
function unwound(angles: readonly Angles[]): Angles[] {
  const result: Angles[] = [];
  for (const now of angles) {
    const before = result.at(-1) ?? now;
    const near = (value: number, to: number) => value - 360 * Math.round((value - to) / 360);
    result.push({
      yaw: near(now.yaw, before.yaw),
      pitch: now.pitch,
      roll: near(now.roll, before.roll),
    });
  }
  return result;
}
