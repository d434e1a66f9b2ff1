import { withKey } from '../../document/with-key.js';
import { refuseCircles } from '../../document/rider-graph.js';
import type { ParentKey } from '../../document/shot-parent-key.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn, rotationIn } from '../../motion/pose/pose.js';
import { intoCarrier } from '../../motion/pose/rest-pose.js';
import { sourceFrame } from '../../motion/timing/retiming.js';
import { poseOfRider, withRider } from './change-rider.js';

/**
 * A rider that switches to a carrier at a frame and keeps its position there; to none, and it continues by itself.
 *
 * @param frame of the shot
 * @param blend seconds that it takes; from place to place there is no jump with none
 * @throws ShotError where the carrier is carried, or led, by the rider itself
 */
export function switchCarrier(
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
  if (carrier !== null) intoCarrier(poseOfRider(evaluated, carrier, frame), place, turn);
  const at = Math.round(sourceFrame(shot, frame) * 1e3) / 1e3;
  const seat =
    carrier === null
      ? { translation: [0, 0, 0], rotation: [0, 0, 0, 1] }
      : { translation: place, rotation: turn };
  const key = { frame: at, rider: carrier, blend, ...seat } as ParentKey;
  const handed = withRider(shot, id, (rider) => ({
    ...rider,
    parentKeys: withKey(rider.parentKeys, key),
  }));
  refuseCircles(handed);
  return handed;
}
