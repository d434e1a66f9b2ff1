import { quat, vec3 } from 'gl-matrix';
import { defaultsOf } from '../../document/defaults.js';
import { Attachment } from '../../document/shot-attachment.js';
import { PaceKey, type Pace } from '../../document/shot-pace.js';
import type { Facing } from '../../document/shot-facing.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { metresPerValue } from '../../motion/pace/change-unit.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { nearestToPoint } from '../../geometry/path/nearest.js';
import { PathError } from '../../geometry/path/path-error.js';
import { axesToTravel } from '../../motion/pose/axes.js';
import { anglesOf } from '../../motion/pose/offset-rotation.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { POSE, positionIn, rotationIn } from '../../motion/pose/pose.js';
import { hasWheelbase } from '../../motion/ride/chassis.js';
import { poseOfRider, withAttachment, withRider } from './change-rider.js';
import { withOwnPace } from './own-pace.js';

/** How riders are to be attached to a path. */
export interface AttachPlan {
  readonly path: string;
  /** Start of the first of them, metres along the path. */
  readonly start: number;
  readonly way: 'along' | 'against';
  /** Once over what is left of the path until the last frame, at a speed (m/s), or as timed already. */
  readonly timing: { readonly kind: 'once' | 'kept' } | { readonly kind: 'speed'; readonly speed: number };
  readonly startFrame: number;
  /** How far each next rider starts behind the one before, metres. */
  readonly spacing: number;
  /** Riders stay where they are at the start frame: their offsets are set so. */
  readonly keepsPlace: boolean;
}

/** A model's own axes. */
export type Axes = Pick<Facing, 'forward' | 'up'>;

/**
 * Attaches riders to a path. Former settings (bank, aim, offset) are kept; axes are set if there was no facing yet. A
 * string behind a rider comes along.
 *
 * @param axes by rider the axes its model was found to face by
 * @throws PathError where the path has no curve
 */
export function attachRiders(
  shot: Shot,
  assets: SceneAssets,
  ids: readonly string[],
  plan: AttachPlan,
  axes: ReadonlyMap<string, Axes> = new Map(),
): Shot {
  const path = shot.paths.find(({ id }) => id === plan.path);
  if (path === undefined) throw new Error(`There is no path "${plan.path}".`);
  const curve = compiledPathOf(path);
  if (curve instanceof PathError) throw curve;
  return ids.reduce((before, id, i) => {
    const behind = (plan.way === 'along' ? -1 : 1) * i * plan.spacing || 0;
    return attachOne(before, assets, id, plan, curve, behind, axes.get(id));
  }, shot);
}

function attachOne(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  plan: AttachPlan,
  curve: CompiledPath,
  along: number,
  axes: Axes | undefined,
): Shot {
  const evaluated = evaluateShot(shot, assets);
  const was = plan.keepsPlace ? poseOfRider(evaluated, id, plan.startFrame) : null;
  const begun = was ? { ...plan, start: nearestToPoint(curve, positionIn(was)).distance } : plan;
  const plain = defaultsOf(Attachment);
  const attached = withRider(shot, id, (rider) => {
    if (plan.timing.kind === 'kept' && rider.attachment !== null) {
      const leader = shot.riders.find((other) => other.id === rider.attachment?.coupledTo?.rider);
      // A unit behind a rider of another path continues by itself.
      const own = leader && leader.attachment?.path !== plan.path ? withOwnPace(evaluated, rider) : rider;
      return { ...own, attachment: own.attachment && { ...own.attachment, path: plan.path } };
    }
    const base: Attachment = rider.attachment ?? {
      ...plain,
      path: plan.path,
      // One that keeps its place is held by its origin.
      anchor: was === null ? firstAnchor(rider) : 'origin',
      facing: { ...plain.facing, ...axes },
    };
    const placed = { along: was ? 0 : along, yaw: plan.way === 'against' ? 180 : 0 };
    const attachment: Attachment = {
      ...base,
      path: plan.path,
      coupledTo: null,
      pacedBy: null,
      offset: { ...base.offset, ...placed },
      offsetKeys: base.offsetKeys.map((key) => ({ ...key, ...placed })),
      pace: startingPace(shot, begun, curve, base.pace),
    };
    return { ...rider, attachment };
  });
  const together = withString(attached, id, plan.path);
  return was ? keptInPlace(together, assets, id, plan.startFrame, was, begun.start) : together;
}

/** The anchor of a newly attached rider: its rear axle where it has a wheelbase and wheels that steer, else its origin. */
export const firstAnchor = ({ chassis, wheels }: Rider): Attachment['anchor'] =>
  chassis !== null && hasWheelbase(chassis) && wheels.some(({ steers }) => steers) ? 'rearAxle' : 'origin';

/** The string behind a rider, on the rider's path. */
function withString(shot: Shot, id: string, path: string): Shot {
  const behind = new Set([id]);
  for (const leader of behind) {
    for (const rider of shot.riders) if (rider.attachment?.coupledTo?.rider === leader) behind.add(rider.id);
  }
  behind.delete(id);
  return [...behind].reduce(
    (before, unit) => withAttachment(before, unit, (attachment) => ({ ...attachment, path })),
    shot,
  );
}

/** The metres of its path that a ride covers once, and the frame at which it is done. */
function onceOver(
  shot: Pick<Shot, 'range' | 'loop'>,
  { start, startFrame, way }: Pick<AttachPlan, 'start' | 'startFrame' | 'way'>,
  { length, closed }: Pick<CompiledPath, 'length' | 'closed'>,
): { left: number; last: number } {
  return {
    left: closed ? length : way === 'along' ? length - start : start,
    // In a loop round a closed path the frame after the last is the first again.
    last: Math.max(shot.range.last + (shot.loop && closed ? 1 : 0), startFrame + 1),
  };
}

/** How fast a ride goes, in m/s, that goes once over what is left of its path by the end of the range. */
export function speedOnce(
  shot: Pick<Shot, 'range' | 'loop' | 'fps'>,
  plan: Pick<AttachPlan, 'start' | 'startFrame' | 'way'>,
  curve: Pick<CompiledPath, 'length' | 'closed'>,
): number {
  const { left, last } = onceOver(shot, plan, curve);
  return (left * shot.fps) / (last - plan.startFrame);
}

/** A pace from the start on: by keys at even speed, or by one speed. */
function startingPace(shot: Shot, plan: AttachPlan, curve: CompiledPath, base: Pace): Pace {
  const { start, startFrame, timing } = plan;
  const { length } = curve;
  const sign = plan.way === 'along' ? 1 : -1;
  const { left, last } = onceOver(shot, plan, curve);
  if (timing.kind === 'speed') {
    // A speed stays one however the path is edited; before it sets off it waits.
    const goes = { frame: startFrame, speed: sign * timing.speed, ease: 'linear' as const };
    const waits = { frame: shot.range.first, speed: 0, ease: 'hold' as const };
    return {
      ...base,
      mode: 'speed',
      unit: 'metres',
      speeds: startFrame > shot.range.first ? [waits, goes] : [goes],
      start: { frame: startFrame, value: start },
      before: 'hold',
      after: 'hold',
    };
  }
  const key = { ...defaultsOf(PaceKey), ease: 'linear' as const };
  // In laps "once along" stays so however the path is edited.
  const unit = 'laps';
  const value = (metres: number) => metres / metresPerValue({ unit }, { length });
  const keys = [{ ...key, frame: startFrame, value: value(start) }];
  if (last > startFrame) keys.push({ ...key, frame: last, value: value(start + sign * left) });
  return {
    ...base,
    mode: 'keys',
    unit,
    keys,
    start: { frame: startFrame, value: value(start) },
    before: 'hold',
    after: 'hold',
  };
}

/**
 * The rider's offset such that at a frame it is where, and turned as, a pose has it.
 *
 * @param nearest the distance along the path that is nearest to there
 */
function keptInPlace(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  frame: number,
  was: Float64Array,
  nearest: number,
): Shot {
  const poseIn = (one: Shot) => poseOfRider(evaluateShot(one, assets), id, frame);
  const ahead = nearest - poseIn(shot)[POSE.distance];
  const plain = defaultsOf(Attachment);
  const upright = withAttachment(shot, id, (attachment) => ({
    ...attachment,
    offset: { ...plain.offset, along: attachment.offset.along + ahead },
    offsetKeys: [],
    rideTransform: null,
    influence: [],
    facing: { ...attachment.facing, mode: 'path', influence: [] },
  }));
  const { forward, up } = (upright.riders.find((rider) => rider.id === id)?.attachment ?? plain).facing;
  const toModel = quat.conjugate([0, 0, 0, 1], axesToTravel(forward, up)) as Quat;
  /** The frame of travel as a rotation that takes the world into it. */
  const intoTravel = (pose: Float64Array): Quat => {
    const travel = quat.multiply([0, 0, 0, 1], rotationIn(pose), toModel);
    return quat.conjugate([0, 0, 0, 1], travel) as Quat;
  };
  const banked = poseIn(upright);
  const level = poseIn(withAttachment(upright, id, (attachment) => ({ ...attachment, bank: plain.bank })));
  const turn = quat.multiply([0, 0, 0, 1], intoTravel(banked), rotationIn(was));
  quat.multiply(turn, turn, toModel);
  const gap = vec3.subtract([0, 0, 0], positionIn(was), positionIn(level));
  const [side, rise, left] = vec3.transformQuat([0, 0, 0], gap, intoTravel(level)) as Vec3;
  // Past the end of an open path something is left ahead, which no offset has: the ride is moved by it.
  const past = vec3.transformQuat(
    [0, 0, 0],
    [0, 0, left],
    quat.invert([0, 0, 0, 1], intoTravel(level)),
  ) as Vec3;
  return withAttachment(shot, id, (attachment) => ({
    ...attachment,
    offset: { along: attachment.offset.along + ahead, side, rise, ...anglesOf(turn as Quat) },
    offsetKeys: [],
    rideTransform: Math.abs(left) > 1e-6 ? { translation: past, turn: 0, size: 1 } : null,
  }));
}
