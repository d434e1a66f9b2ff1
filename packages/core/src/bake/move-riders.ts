import { quat, vec3 } from 'gl-matrix';
import { poseOfRider, withRider } from '../arrange/change-rider.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { RADIANS } from '../math/angle.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { positionIn, rotationIn } from '../pose/pose.js';
import { putRider } from './hand-keys.js';

/** How riders are moved as one thing: made larger and turned about the first of them, then moved. */
export interface RidersMove {
  /** Metres of the world. */
  readonly step: Vec3;
  /** Degrees to the left about up. */
  readonly turn: number;
  /** Times the size. */
  readonly size: number;
}

export const NO_MOVE: RidersMove = { step: [0, 0, 0], turn: 0, size: 1 };

/**
 * The shot with riders moved that ride no path: for good, or, those that are moved by hand, by keys at a frame.
 *
 * @param frame of the shot
 */
export function moveRiders(
  shot: Shot,
  assets: SceneAssets,
  ids: readonly string[],
  frame: number,
  { step, turn, size }: RidersMove,
): Shot {
  const evaluated = evaluateShot(shot, assets);
  const free = ids.filter((id) => shot.riders.some((rider) => rider.id === id && rider.hitch === null));
  if (free.length === 0) return shot;
  const about = positionIn(poseOfRider(evaluated, free[0], frame));
  const yaw = quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], turn * RADIANS) as Quat;
  return free.reduce((before, id) => {
    const pose = poseOfRider(evaluated, id, frame);
    const place = positionIn(pose);
    vec3.subtract(place, place, about);
    vec3.scale(place, place, size);
    vec3.transformQuat(place, place, yaw);
    vec3.add(place, vec3.add(place, place, about), step);
    const rotation = quat.multiply([0, 0, 0, 1], yaw, rotationIn(pose)) as Quat;
    const rider = shot.riders.find((one) => one.id === id);
    const under = rider?.parent == null ? null : poseOfRider(evaluated, rider.parent, frame);
    if (under !== null) {
      const back = quat.conjugate([0, 0, 0, 1], rotationIn(under)) as Quat;
      vec3.subtract(place, place, positionIn(under));
      vec3.transformQuat(place, place, back);
      quat.multiply(rotation, back, rotation);
    }
    quat.normalize(rotation, rotation);
    const put = putRider(before, assets, id, frame, { translation: place, rotation });
    if (size === 1) return put;
    return withRider(put, id, (one) => ({
      ...one,
      rest: { ...one.rest, scale: one.rest.scale.map((value) => value * size) as Vec3 },
    }));
  }, shot);
}
