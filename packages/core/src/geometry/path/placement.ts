import { quat, vec3 } from 'gl-matrix';
import type { Transform } from '../../document/transform.js';
import type { Quat, Vec3 } from '../math/vec.js';

/** A place in a path's own space, in the world: scaled, turned, then moved. */
export function toWorld({ translation, rotation, scale }: Transform, local: Vec3): Vec3 {
  const out: Vec3 = [local[0] * scale[0], local[1] * scale[1], local[2] * scale[2]];
  vec3.transformQuat(out, out, unit(rotation));
  vec3.add(out, out, translation);
  return out;
}

/** The inverse of {@link toWorld}. */
export function toLocal({ translation, rotation, scale }: Transform, world: Vec3): Vec3 {
  const out = vec3.subtract([0, 0, 0], world, translation) as Vec3;
  vec3.transformQuat(out, out, quat.conjugate([0, 0, 0, 1], unit(rotation)));
  return [out[0] / scale[0], out[1] / scale[1], out[2] / scale[2]];
}

function unit(rotation: Quat): Quat {
  return quat.normalize([0, 0, 0, 1], rotation) as Quat;
}
