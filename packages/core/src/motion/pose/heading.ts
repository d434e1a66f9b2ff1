import { vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import { DEGREES } from '../../geometry/math/angle.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from './axes.js';
import { rotationIn } from './pose.js';

/**
 * The direction a rider's front points to on the ground, degrees: 0 along +Z, growing to the left,
 * from 0 up to 360. Straight up or down reads 0.
 *
 * @param pose    POSE.size numbers
 * @param forward the model's own forward axis
 */
export function headingDeg(pose: Float64Array, forward: Axis): number {
  const [x, , z] = noseOf(pose, forward);
  if (Math.hypot(x, z) < 1e-9) return 0;
  const degrees = Math.atan2(x, z) * DEGREES;
  return degrees < 0 ? degrees + 360 : degrees;
}

/** How far a rider's front points up, degrees. */
export function pitchDeg(pose: Float64Array, forward: Axis): number {
  return Math.asin(Math.min(1, Math.max(-1, noseOf(pose, forward)[1]))) * DEGREES;
}

function noseOf(pose: Float64Array, forward: Axis): Vec3 {
  return vec3.transformQuat([0, 0, 0], axisVector(forward), rotationIn(pose)) as Vec3;
}
