import { vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE } from './pose.js';

/**
 * World position of a point in a rider's own space.
 *
 * @param pose POSE.size numbers
 * @param own  metres, the rider's scale in it
 */
export function pointOn(pose: Float64Array, own: Vec3, out: Vec3 = [0, 0, 0]): Vec3 {
  for (let k = 0; k < 4; k++) turn[k] = pose[POSE.rotation + k];
  vec3.transformQuat(out, own, turn);
  for (let k = 0; k < 3; k++) out[k] += pose[k];
  return out;
}

const turn: Quat = [0, 0, 0, 1];
