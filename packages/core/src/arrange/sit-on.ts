import { quat, vec3 } from 'gl-matrix';
import { refuseCircles } from '../document/rider-graph.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn, rotationIn } from '../pose/pose.js';
import { poseOfRider, withRider } from './change-rider.js';

/**
 * A rider put on a carrier, or with null taken off it. It keeps its place in the world at a frame, or with
 * `keepsPlace` off it sits in the carrier's very place.
 *
 * @throws ShotError where the carrier is carried, or led, by the rider itself
 */
export function sitOn(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  carrier: string | null,
  frame: number,
  keepsPlace: boolean,
): Shot {
  const free = withRider(shot, id, (rider) => ({ ...rider, parent: carrier }));
  refuseCircles(free);
  if (!keepsPlace && carrier !== null) {
    return withRider(free, id, (rider) => ({
      ...rider,
      rest: { ...rider.rest, translation: [0, 0, 0], rotation: [0, 0, 0, 1] },
    }));
  }
  const rider = shot.riders.find((other) => other.id === id);
  // Of a rider on a path the rest is what is carried: that of its path stays as it is.
  const resting = withRider(shot, id, (before) => ({ ...before, hitch: null }));
  const own = poseOfRider(evaluateShot(resting, assets), id, frame);
  if (rider === undefined) return shot;
  const place = positionIn(own);
  const turn = rotationIn(own);
  if (carrier !== null) {
    const under = poseOfRider(evaluateShot(shot, assets), carrier, frame);
    const back = quat.conjugate([0, 0, 0, 1], rotationIn(under));
    vec3.subtract(place, place, positionIn(under));
    vec3.transformQuat(place, place, back);
    quat.multiply(turn, back, turn);
  }
  quat.normalize(turn, turn);
  return withRider(free, id, (before) => ({
    ...before,
    rest: { ...before.rest, translation: place, rotation: turn },
  }));
}
