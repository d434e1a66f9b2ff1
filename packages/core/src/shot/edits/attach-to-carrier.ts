import { refuseCircles } from '../../document/rider-graph.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { poseOfRider, withRider } from './change-rider.js';
import { inSpaceOf } from './in-space-of.js';

/**
 * A rider put on a carrier, or with null taken off it. It keeps its place in the world at a frame, or with
 * `keepsPlace` off it sits in the carrier's very place.
 *
 * @throws ShotError where the carrier is carried, or led, by the rider itself
 */
export function attachToCarrier(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  carrier: string | null,
  frame: number,
  keepsPlace: boolean,
): Shot {
  const free = withRider(shot, id, (rider) => ({
    ...rider,
    parent: carrier,
    restBeforeParent:
      carrier === null ? null : (rider.restBeforeParent ?? (rider.parent === null ? rider.rest : null)),
  }));
  refuseCircles(free);
  if (!keepsPlace && carrier !== null) {
    return withRider(free, id, (rider) => ({
      ...rider,
      rest: { ...rider.rest, translation: [0, 0, 0], rotation: [0, 0, 0, 1] },
    }));
  }
  const rider = shot.riders.find((other) => other.id === id);
  if (rider === undefined) return shot;
  const evaluated = evaluateShot(shot, assets);
  const posed = (other: string | null) => (other === null ? null : poseOfRider(evaluated, other, frame));
  // Only the rest pose of a rider on a path is carried: that of its path stays.
  return withRider(free, id, (before) => inSpaceOf(before, posed(rider.parent), posed(carrier)));
}

/** Detaches a rider from its carrier, back to its rest pose before; unchanged if that is not known. */
export function putBack(shot: Shot, id: string): Shot {
  return withRider(shot, id, (rider) =>
    rider.restBeforeParent === null
      ? rider
      : {
          ...rider,
          parent: null,
          restBeforeParent: null,
          rest: { ...rider.restBeforeParent, scale: rider.rest.scale },
        },
  );
}
