import { quat } from 'gl-matrix';
import type { Offset } from '../document/shot-hitch.js';
import type { Quat } from '../math/vec.js';

/**
 * The turn of an offset in the frame of travel: yaw to the left, then pitch nose up, then roll
 * with the right side down. Degrees in, a unit quaternion out.
 */
export function offsetRotation(offset: Pick<Offset, 'yaw' | 'pitch' | 'roll'>): Quat {
  const radians = Math.PI / 180;
  const out = quat.create();
  quat.rotateY(out, out, offset.yaw * radians);
  // Turning about left takes the nose down, so nose up is its opposite.
  quat.rotateX(out, out, -offset.pitch * radians);
  quat.rotateZ(out, out, offset.roll * radians);
  return out as Quat;
}
