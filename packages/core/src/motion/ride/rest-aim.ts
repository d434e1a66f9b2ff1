import { quat, vec3 } from 'gl-matrix';
import type { RestAim } from '../../document/shot-rest-aim.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { axesToTravel } from '../pose/axes.js';
import { POSE, type PoseAt } from '../pose/pose.js';
import type { TrackRange } from './aim-track.js';
import { compileAiming, type TargetAt } from './aiming.js';

/** A pose turned to what its rider looks at; its place stays. */
export function withRestAim(
  pose: PoseAt,
  rider: Rider,
  { forward, up, aim }: RestAim,
  target: TargetAt,
  range: TrackRange,
  influence: ((frame: number) => number) | null = null,
): PoseAt {
  const axes = axesToTravel(forward, up);
  const back = quat.conjugate([0, 0, 0, 1], axes) as Quat;
  const now = new Float64Array(POSE.size);
  const turn: Quat = [0, 0, 0, 1];
  const left: Vec3 = [0, 0, 0];
  /** Position and left, as a frame of travel has them. */
  const way = new Float64Array(12);
  const travel = (frame: number, out: Float64Array): number => {
    pose(frame, now, 0);
    for (let k = 0; k < 3; k++) out[k] = now[k];
    quat.multiply(turn, [now[3], now[4], now[5], now[6]], back);
    vec3.transformQuat(left, [1, 0, 0], turn);
    for (let k = 0; k < 3; k++) out[3 + k] = left[k];
    return 0;
  };
  const parts = { target, range, travelSign: 1, influence, roll: () => 0 } as const;
  const aiming = compileAiming(rider, { aim, ahead: 0, mode: 'aim' }, travel, parts);
  const looking: Quat = [0, 0, 0, 1];
  const own: Quat = [0, 0, 0, 1];
  return (frame, out, at) => {
    pose(frame, out, at);
    const part = aiming?.influence(frame) ?? 0;
    if (aiming === null || part === 0) return;
    travel(frame, way);
    quat.copy(own, turn);
    if (!aiming.turn(frame, way, own, looking)) return;
    quat.slerp(own, own, looking, part);
    quat.multiply(own, own, axes);
    quat.normalize(own, own);
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = own[k];
  };
}
