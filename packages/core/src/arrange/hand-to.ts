import { quat, vec3 } from 'gl-matrix';
import { refuseCircles } from '../document/rider-graph.js';
import type { CarrierKey } from '../document/shot-carrier.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import type { Quat } from '../math/vec.js';
import { positionIn, rotationIn } from '../pose/pose.js';
import { sourceFrame } from '../timing/index.js';
import { poseOfRider, withRider } from './change-rider.js';

/**
 * A rider handed to a carrier from a frame on, in the very place it has there; to nobody, and it goes on by itself.
 *
 * @param frame of the shot
 * @param blend seconds that it takes; from place to place there is no jump with none
 * @throws ShotError where the carrier is carried, or led, by the rider itself
 */
export function handTo(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  carrier: string | null,
  frame: number,
  blend = 0,
): Shot {
  const evaluated = evaluateShot(shot, assets);
  const own = poseOfRider(evaluated, id, frame);
  const place = positionIn(own);
  const turn = rotationIn(own);
  if (carrier !== null) {
    const under = poseOfRider(evaluated, carrier, frame);
    const back = quat.conjugate([0, 0, 0, 1], rotationIn(under)) as Quat;
    vec3.subtract(place, place, positionIn(under));
    vec3.transformQuat(place, place, back);
    quat.multiply(turn, back, turn);
    quat.normalize(turn, turn);
  }
  const at = Math.round(sourceFrame(shot, frame) * 1e3) / 1e3;
  const seat =
    carrier === null
      ? { translation: [0, 0, 0], rotation: [0, 0, 0, 1] }
      : { translation: place, rotation: turn };
  const key = { frame: at, rider: carrier, blend, ...seat } as CarrierKey;
  const handed = withRider(shot, id, (rider) => ({
    ...rider,
    carriers: [...rider.carriers.filter((one) => one.frame !== at), key].sort((a, b) => a.frame - b.frame),
  }));
  refuseCircles(handed);
  return handed;
}
