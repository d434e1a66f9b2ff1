import { mat3, quat } from 'gl-matrix';
import type { Offset } from '../../document/shot-attachment.js';
import type { Quat } from '../../geometry/math/vec.js';
import { DEGREES, RADIANS } from '../../geometry/math/angle.js';
import { newMat3, newQuat } from '../../geometry/math/new-matrix.js';

/**
 * The turn of an offset in the frame of travel: yaw to the left, then pitch nose up, then roll
 * with the right side down. Degrees in, a unit quaternion out.
 */
export function offsetRotation(offset: Pick<Offset, 'yaw' | 'pitch' | 'roll'>): Quat {
  const out = newQuat();
  quat.rotateY(out, out, offset.yaw * RADIANS);
  // Turning about left takes the nose down, so nose up is its opposite.
  quat.rotateX(out, out, -offset.pitch * RADIANS);
  quat.rotateZ(out, out, offset.roll * RADIANS);
  return out as Quat;
}

/** Yaw, pitch and roll, degrees, that {@link offsetRotation} makes a rotation of. */
export function anglesOf(rotation: Quat): Pick<Offset, 'yaw' | 'pitch' | 'roll'> {
  // Columns of Y(yaw) X(−pitch) Z(roll): entry [column][row].
  const m = mat3.fromQuat(newMat3(), rotation);
  const tilt = Math.asin(Math.min(1, Math.max(-1, -m[7])));
  return {
    yaw: Math.atan2(m[6], m[8]) * DEGREES || 0,
    pitch: -tilt * DEGREES || 0,
    roll: Math.atan2(m[1], m[4]) * DEGREES || 0,
  };
}
