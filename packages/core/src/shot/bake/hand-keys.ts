import { quat } from 'gl-matrix';
import { withRider } from '../edits/change-rider.js';
import { withKey } from '../../document/with-key.js';
import type { TransformKeys, PlaceKey } from '../../document/shot-transform-keys.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE, positionIn, rotationIn } from '../../motion/pose/pose.js';
import { handTrackOf } from '../../motion/ride/hand-track.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { risingFrames } from '../../motion/timing/rising-frames.js';
import { sourceFrame } from '../../motion/timing/retiming.js';
import { sampleRider } from './sample-shot.js';
import { keysWithin } from './thin-keys.js';
import { withoutForces } from './without-forces.js';
import { frameOfSample, workTime } from './work-samples.js';

/** A place and a turn. */
export interface Placement {
  readonly translation: Vec3;
  readonly rotation: Quat;
}

/** The frame of a rider's own time that a frame of the shot shows, to a thousandth. */
export function ownFrameOf({ shot, timing }: EvaluatedShot, rider: Rider, frame: number): number {
  const work = sourceFrame(shot, frame);
  const own = mapFrames(timing(rider)?.steps ?? [], shot.range).own(work);
  return Math.round(own * 1e3) / 1e3;
}

/**
 * Placement of a rider without a path, by its rest pose or its keys, at a frame of the shot: in the world, or on its
 * carrier.
 */
export function placementAt(evaluated: EvaluatedShot, rider: Rider, frame: number): Placement {
  const { transformKeys, rest } = rider;
  if (transformKeys === null || transformKeys.keys.length === 0)
    return { translation: rest.translation, rotation: rest.rotation };
  const way = handTrackOf(transformKeys, evaluated.shot.fps);
  const own = ownFrameOf(evaluated, rider, frame);
  const translation: Vec3 = [0, 0, 0];
  const rotation: Quat = [0, 0, 0, 1];
  way.position(own, translation);
  way.rotation(own, rotation);
  return { translation, rotation };
}

/**
 * A rider put somewhere: at rest for good, or, where it is moved by hand, by a key at the frame.
 *
 * @param frame of the shot
 */
export function riderPut(
  evaluated: EvaluatedShot,
  rider: Rider,
  frame: number,
  { translation, rotation }: Placement,
): Rider {
  const { transformKeys, rest } = rider;
  if (transformKeys === null) return { ...rider, rest: { ...rest, translation, rotation } };
  const own = ownFrameOf(evaluated, rider, frame);
  const before = transformKeys.keys.find((key) => key.frame === own);
  const key: PlaceKey = { frame: own, ease: before?.ease ?? 'smooth', translation, rotation };
  return { ...rider, transformKeys: { keys: withKey(transformKeys.keys, key) } };
}

/** The shot with a rider put somewhere. */
export function putRider(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  frame: number,
  placement: Placement,
): Shot {
  const evaluated = evaluateShot(shot, assets);
  return withRider(shot, id, (rider) => riderPut(evaluated, rider, frame, placement));
}

/** The shot with a transform key of a rider's placement at a frame; the first of them makes it moved by hand. */
export function keyHere(shot: Shot, assets: SceneAssets, id: string, frame: number): Shot {
  const evaluated = evaluateShot(shot, assets);
  const rider = shot.riders.find((one) => one.id === id);
  if (rider === undefined) return shot;
  const placement = placementAt(evaluated, rider, frame);
  const begun = withRider(shot, id, (one) => ({ ...one, transformKeys: one.transformKeys ?? { keys: [] } }));
  return putRider(begun, assets, id, frame, placement);
}

/**
 * The shot with a rider moved by hand that does what it did: on a path, carried, or frozen. It is off its path and its carrier then.
 *
 * @param within how near it stays at whole frames, metres, and radians of its turn; above 0
 */
export function keysOfRide(shot: Shot, assets: SceneAssets, id: string, within: number): Shot {
  const index = shot.riders.findIndex((rider) => rider.id === id);
  if (index < 0) return shot;
  const time = workTime(shot, assets);
  const poses = sampleRider(time.evaluated.poses[index], time.first, time.count, time.step);
  const frames = Array.from({ length: time.count }, (_, i) => frameOfSample(time, i));
  // Cues and retimes act on it as before: its keys are in its own frames.
  const { own } = mapFrames(time.evaluated.timing(shot.riders[index])?.steps ?? [], shot.range);
  const all = risingFrames(frames, own).map((i): PlaceKey => ({
    frame: Math.round(own(frames[i]) * 1e6) / 1e6,
    ease: 'smooth',
    translation: positionIn(poses, i * POSE.size),
    rotation: rotationIn(poses, i * POSE.size),
  }));
  return withRider(shot, id, (rider) => ({
    ...rider,
    parent: null,
    attachment: null,
    frozen: null,
    // Its target, carriers and shake are in the keys.
    restAim: null,
    parentKeys: [],
    follow: null,
    shake: null,
    ...withoutForces(rider, assets),
    transformKeys: { keys: fewKeys(all, shot.fps, within) },
  }));
}

/** As few of some keys as come within a tolerance of all others: where the worst is missed, it is kept, until none is. */
function fewKeys(all: readonly PlaceKey[], fps: number, within: number): PlaceKey[] {
  const last = all.length - 1;
  const places = Float64Array.from(all.flatMap(({ translation }) => translation));
  const turns = Float64Array.from(all.flatMap(({ rotation }) => rotation));
  // Straight lines need no fewer than curves do; ten times as rough is a beginning.
  const kept = new Set([
    ...keysWithin(places, 3, 10 * within, 'straight'),
    ...keysWithin(turns, 4, 10 * within, 'turns'),
  ]);
  for (;;) {
    const chosen = [...kept].sort((a, b) => a - b);
    const keys = chosen.map((i): PlaceKey => ({
      ...all[i],
      // Straight at its ends: it was under way before, and goes on.
      ease: i === 0 || i === chosen[chosen.length - 2] ? 'linear' : 'smooth',
    }));
    const missed = worstMissed(keys, chosen, all, fps, within);
    if (missed.length === 0 || kept.size === last + 1) return keys;
    for (const i of missed) kept.add(i);
  }
}

/** In each stretch between two keys the sample that is missed by most, where that is too much. */
function worstMissed(
  keys: PlaceKey[],
  chosen: readonly number[],
  all: readonly PlaceKey[],
  fps: number,
  within: number,
): number[] {
  const way = handTrackOf({ keys } satisfies TransformKeys, fps);
  const place: Vec3 = [0, 0, 0];
  const turn: Quat = [0, 0, 0, 1];
  const missed: number[] = [];
  for (let n = 0; n + 1 < chosen.length; n++) {
    let [worst, at] = [within, -1];
    for (let i = chosen[n] + 1; i < chosen[n + 1]; i++) {
      const { frame, translation, rotation } = all[i];
      way.position(frame, place);
      way.rotation(frame, turn);
      const off = Math.hypot(...place.map((value, k) => value - translation[k]));
      const error = Math.max(off, 2 * Math.acos(Math.min(1, Math.abs(quat.dot(turn, rotation)))));
      if (error > worst) [worst, at] = [error, i];
    }
    if (at >= 0) missed.push(at);
  }
  return missed;
}
