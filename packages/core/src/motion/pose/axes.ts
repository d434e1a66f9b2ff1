import { mat3, quat, vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { newMat3, newQuat } from '../../geometry/math/new-matrix.js';

/** The unit vector of an axis name. */
export function axisVector(axis: Axis): Vec3 {
  const sign = axis[0] === '-' ? -1 : 1;
  return [axis[1] === 'x' ? sign : 0, axis[1] === 'y' ? sign : 0, axis[1] === 'z' ? sign : 0];
}

/** The name of the axis that a direction along one of them has. */
export function axisAlong(way: Vec3): Axis {
  const k = way.findIndex((value) => Math.abs(value) > 0.5);
  return `${way[k] > 0 ? '+' : '-'}${'xyz'[k]}` as Axis;
}

/**
 * The rotation that takes a model's own forward axis to +Z and its own up axis to +Y, where the
 * frame of travel has them.
 *
 * @param forward, up two of the six axes, square to each other
 */
export function axesToTravel(forward: Axis, up: Axis): Quat {
  const f = axisVector(forward);
  const u = axisVector(up);
  const l = vec3.cross([0, 0, 0], u, f) as Vec3;
  // Columns of the inverse are the model's left, up and forward; the transpose inverts it.
  const toModel = mat3.set(newMat3(), l[0], l[1], l[2], u[0], u[1], u[2], f[0], f[1], f[2]);
  const out = quat.fromMat3(newQuat(), mat3.transpose(newMat3(), toModel));
  return quat.normalize(out, out) as Quat;
}
