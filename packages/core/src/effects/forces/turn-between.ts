import { quat } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/** The turn from one rotation to another by the shorter way: its axis times its angle, in the world. */
export function rotationVectorBetween(from: Quat, to: Quat): Vec3 {
  const turn = quat.multiply([0, 0, 0, 1], to, quat.conjugate([0, 0, 0, 1], from)) as Quat;
  const sign = turn[3] < 0 ? -1 : 1;
  const sine = Math.hypot(turn[0], turn[1], turn[2]);
  if (sine < 1e-12) return [0, 0, 0];
  const angle = 2 * Math.atan2(sine, sign * turn[3]);
  return [0, 1, 2].map((k) => (sign * turn[k] * angle) / sine) as Vec3;
}
