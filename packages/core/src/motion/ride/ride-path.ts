import { quat } from 'gl-matrix';
import type { Facing } from '../../document/shot-facing.js';
import type { Attachment, Offset } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import { DEGREES } from '../../geometry/math/angle.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { FrameReference } from '../../geometry/path/compiled-path.js';
import type { TrackRange } from './aim-track.js';
import { compileAiming, type TargetAt } from './aiming.js';
import { axesToTravel } from '../pose/axes.js';
import { compileBank } from './bank.js';
import type { PositionAtFrame } from './clearance.js';
import { compileTravelTurn } from './travel-turn.js';
import type { PathMotion } from './path-motion.js';
import type { GroundFit } from './ground-fit.js';
import { compileInfluence } from '../pose/influence.js';
import { frameRotation } from '../pose/frame-rotation.js';
import { offsetRotation } from '../pose/offset-rotation.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import { isPlain, plainRide } from './plain-ride.js';
import { compileTravel, signedSpeed } from './travel.js';
import { travelSignOf } from './axle-placement.js';

/** Inputs of a ride beside the rider itself. */
export interface RideParts {
  readonly motion: PathMotion;
  /** Rest pose of the rider: for one that leaves its path, or keeps its rotation. */
  readonly rest: PoseAt;
  /** Target; null if there is none, or a point ahead. */
  readonly target: TargetAt | null;
  readonly range: TrackRange;
  /** How it is set on the ground; null where it is not. */
  readonly ground: GroundFit | null;
  /** How far it is led away from what it keeps clear of; null where it keeps clear of nothing. */
  readonly clear?: PositionAtFrame | null;
  /** How much it follows its path and faces its way, 0 to 1, where that is not as keyed. */
  readonly cued?: RideBlends;
}

/** Values that hold instead of keyed influences; null for those that do not. */
export interface RideBlends {
  readonly attachment: ((frame: number) => number) | null;
  /** Of what aims, how much it does; else how much it turns as it goes. */
  readonly facing: ((frame: number) => number) | null;
}

/** Up reference along the path itself; a rider that is tilted to the ground begins with the world's. */
export function referenceOf({ reference }: Facing): FrameReference {
  return reference === 'path' ? 'path' : 'world';
}

/**
 * A rider on its path: at its pace's distance, banked, turned to the frame of travel or to what it aims at,
 * moved by its offset.
 *
 * `along` is measured on the curve itself, so a rider set back by 3 m goes where the leader went. Offsets to
 * the side and up are taken in the frame of travel before it banks. What is blended is blended by the shorter
 * way round (spherical interpolation of quaternions, Shoemake 1985).
 */
export function ridePath(rider: Rider, attachment: Attachment, parts: RideParts): PoseAt {
  const { facing } = attachment;
  const { motion, rest, target, range } = parts;
  const { offset, pace } = motion;
  const axes = axesToTravel(facing.forward, facing.up);
  const clear = parts.clear ?? null;
  const cued = parts.cued ?? { attachment: null, facing: null };
  const free = cued.attachment === null && cued.facing === null;
  if (parts.ground === null && clear === null && free && isPlain(attachment))
    return plainRide(motion, ownTurn(attachment.offset, axes));
  const travel = compileTravel(attachment, motion, parts.ground, range.fps, clear);
  const size = attachment.rideTransform?.size ?? 1;
  const bankAt = compileBank(attachment.bank, motion, referenceOf(facing), size, range.fps);
  const travelSign = travelSignOf(attachment.offset);
  const aims = facing.mode === 'aim';
  const influence = aims ? cued.facing : null;
  const aiming = compileAiming(rider, facing, travel.place, {
    target,
    range,
    travelSign,
    influence,
    roll: (frame) => offset.at(frame).roll,
  });
  const turnOfTravel = compileTravelTurn(facing, travel, range);
  // Physical bank acts on the rider's own track; an amount follows its path.
  const banksByNose = turnOfTravel !== null && attachment.bank.mode === 'physical';
  const fixed = attachment.offsetKeys.length === 0 ? ownTurn(attachment.offset, axes) : null;
  const holds = cued.attachment ?? compileInfluence(attachment.influence);
  const faces =
    (aims ? null : cued.facing) ?? (facing.mode === 'keep' ? () => 0 : compileInfluence(facing.influence));
  const way = new Float64Array(12);
  const resting = new Float64Array(POSE.size);
  const wayTurn: Quat = [0, 0, 0, 1];
  const turn: Quat = [0, 0, 0, 1];
  const other: Quat = [0, 0, 0, 1];
  const velocity: Vec3 = [0, 0, 0];
  const going = { yaw: 0, pitch: 0 };

  return (frame, out, at) => {
    const distance = travel.place(frame, way);
    travel.velocity(frame, velocity);
    const speed = signedSpeed(velocity);
    frameRotation(way, wayTurn);
    let bank = bankAt === null ? 0 : bankAt(frame, distance, pace.speed(frame), offset.at(frame).side);
    quat.copy(turn, wayTurn);
    if (bank !== 0 && !banksByNose) quat.rotateZ(turn, turn, bank);
    if (turnOfTravel !== null) {
      turnOfTravel(frame, going);
      quat.rotateY(turn, turn, going.yaw);
      // Turning about left takes the nose down.
      quat.rotateX(turn, turn, -going.pitch);
      if (bank !== 0 && banksByNose) {
        bank *= leftOfNose(velocity, going.yaw);
        quat.rotateZ(turn, turn, bank);
      }
    }
    let aimed = aiming?.influence(frame) ?? 0;
    if (aiming !== null && aimed > 0) {
      if (aiming.turn(frame, way, wayTurn, other)) quat.slerp(turn, turn, other, aimed);
      else aimed = 0;
    }
    quat.multiply(turn, turn, fixed ?? ownTurn(offset.at(frame), axes));
    const held = holds?.(frame) ?? 1;
    const faced = (faces?.(frame) ?? 1) * held;
    if (faced < 1) {
      rest(frame, resting, 0);
      for (let k = 0; k < 4; k++) other[k] = resting[POSE.rotation + k];
      quat.slerp(turn, other, turn, faced);
      for (let k = 0; k < 3; k++) way[k] = resting[k] + held * (way[k] - resting[k]);
    }
    quat.normalize(turn, turn);
    out[at] = way[0];
    out[at + 1] = way[1];
    out[at + 2] = way[2];
    out[at + 3] = turn[0];
    out[at + 4] = turn[1];
    out[at + 5] = turn[2];
    out[at + 6] = turn[3];
    out[at + POSE.distance] = distance;
    out[at + POSE.speed] = speed;
    out[at + POSE.bank] = bank * faced * (1 - aimed) * DEGREES;
  };
}

/** How much of what presses to the left of its path presses to the left of a nose; −1 where that goes the other way. */
function leftOfNose([left, , ahead]: Vec3, yaw: number): number {
  return (ahead < 0 ? -1 : 1) * Math.cos(yaw - Math.atan2(left, ahead));
}

function ownTurn(offset: Pick<Offset, 'yaw' | 'pitch' | 'roll'>, axes: Quat): Quat {
  return quat.multiply([0, 0, 0, 1], offsetRotation(offset), axes) as Quat;
}
