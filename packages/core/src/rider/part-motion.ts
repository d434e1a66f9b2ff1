import { quat, vec3 } from 'gl-matrix';
import type { CueAction } from '../document/shot-cue.js';
import type { Axis } from '../document/shot-facing.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { axisVector } from './axes.js';

/** A part of a rider's model that moves by itself: turned about or moved along an axis of its own. */
export interface PartMotion {
  readonly node: string;
  readonly kind: Extract<CueAction['kind'], 'turn' | 'move'>;
  readonly axis: Axis;
  /** Radians or metres from how the model stands, at a frame of the shot. */
  readonly value: (frame: number) => number;
}

/** Where a part is in what it hangs on. */
export interface PartPlace {
  readonly translation: Vec3;
  readonly rotation: Quat;
}

/** Where a part is once it is moved, from where it stands in its model. */
export function movedPart(
  rest: PartPlace,
  motion: Pick<PartMotion, 'kind' | 'axis'>,
  value: number,
): PartPlace {
  const axis = axisVector(motion.axis);
  if (motion.kind === 'turn') {
    const turn = quat.setAxisAngle([0, 0, 0, 1], axis, value);
    return { ...rest, rotation: quat.multiply([0, 0, 0, 1], rest.rotation, turn) as Quat };
  }
  const way = vec3.transformQuat([0, 0, 0], axis, rest.rotation);
  return { ...rest, translation: vec3.scaleAndAdd([0, 0, 0], rest.translation, way, value) as Vec3 };
}
