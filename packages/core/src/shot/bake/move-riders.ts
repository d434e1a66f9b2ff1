import { quat, vec3 } from 'gl-matrix';
import { poseOfRider } from '../edits/change-rider.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { RADIANS } from '../../geometry/math/angle.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { carried, intoCarrier } from '../../motion/pose/rest-pose.js';
import { placementAt, riderPut, type Placement } from './hand-keys.js';

/** Motion of riders as one thing: scaled and rotated about the first of them, then translated. */
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
 * The shot with riders moved that ride no path: for good, or, those that are moved by hand, by keys at a frame. What one of them
 * carries goes along with it. What turns, sways or hands a rider over beside that is left out: it acts on from where it is moved to.
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
  const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
  const free = ids.flatMap((id) => {
    const rider = byId.get(id);
    return rider?.attachment === null && rider.follow === null && !isCarriedByOneOf(rider, ids, byId)
      ? [rider]
      : [];
  });
  if (free.length === 0) return shot;
  const about = placementInWorld(evaluated, free[0], frame).translation;
  const yaw = quat.setAxisAngle([0, 0, 0, 1], [0, 1, 0], turn * RADIANS) as Quat;
  const moved = new Map(
    free.map((rider) => {
      const { translation: place, rotation } = placementInWorld(evaluated, rider, frame);
      vec3.subtract(place, place, about);
      vec3.scale(place, place, size);
      vec3.transformQuat(place, place, yaw);
      vec3.add(place, vec3.add(place, place, about), step);
      quat.multiply(rotation, yaw, rotation);
      if (rider.parent !== null) intoCarrier(poseOfRider(evaluated, rider.parent, frame), place, rotation);
      const put = riderPut(evaluated, rider, frame, { translation: place, rotation });
      const scale = put.rest.scale.map((value) => value * size) as Vec3;
      return [rider.id, size === 1 ? put : { ...put, rest: { ...put.rest, scale } }] as const;
    }),
  );
  return { ...shot, riders: shot.riders.map((rider) => moved.get(rider.id) ?? rider) };
}

/** Placement of a rider without a path, in the world; a copy. */
export function placementInWorld(evaluated: EvaluatedShot, rider: Rider, frame: number): Placement {
  const { translation, rotation } = placementAt(evaluated, rider, frame);
  const [place, turn] = [[...translation] as Vec3, [...rotation] as Quat];
  if (rider.parent !== null) {
    const carrier = poseOfRider(evaluated, rider.parent, frame);
    carried((_, out) => out.set(carrier), frame, place, turn);
  }
  return { translation: place, rotation: turn };
}

function isCarriedByOneOf(rider: Rider, ids: readonly string[], byId: ReadonlyMap<string, Rider>): boolean {
  for (let on = rider.parent; on !== null; on = byId.get(on)?.parent ?? null)
    if (ids.includes(on)) return true;
  return false;
}
