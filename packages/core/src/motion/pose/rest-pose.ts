import { quat, vec3 } from 'gl-matrix';
import type { Transform } from '../../document/transform.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE, positionIn, rotationIn, type PoseAt } from './pose.js';

/** A rider that follows nothing: at rest, in the world or on its parent. */
export function compileRestPose(rest: Transform, parent: PoseAt | null): PoseAt {
  const place: Vec3 = [0, 0, 0];
  const turn: Quat = [0, 0, 0, 1];
  const own = quat.normalize([0, 0, 0, 1], rest.rotation) as Quat;
  return (frame, out, at) => {
    vec3.copy(place, rest.translation);
    quat.copy(turn, own);
    if (parent !== null) carried(parent, frame, place, turn);
    for (let k = 0; k < 3; k++) out[at + k] = place[k];
    for (let k = 0; k < 4; k++) out[at + POSE.rotation + k] = turn[k];
    out[at + POSE.distance] = 0;
    out[at + POSE.speed] = 0;
    out[at + POSE.bank] = 0;
  };
}

/** Brings a place and a turn from a carrier's space into the world, as the carrier is at a frame. */
export function carried(parent: PoseAt, frame: number, place: Vec3, turn: Quat): void {
  parent(frame, under, 0);
  const parentTurn: Quat = [under[3], under[4], under[5], under[6]];
  vec3.transformQuat(place, place, parentTurn);
  for (let k = 0; k < 3; k++) place[k] += under[k];
  quat.multiply(turn, parentTurn, turn);
}

const under = new Float64Array(POSE.size);

/** The other way round: brings a place and a turn of the world into the space of a carrier that is posed so. */
export function intoCarrier(carrier: Float64Array, place: Vec3, turn: Quat): void {
  const back = quat.conjugate([0, 0, 0, 1], rotationIn(carrier)) as Quat;
  vec3.subtract(place, place, positionIn(carrier));
  vec3.transformQuat(place, place, back);
  quat.multiply(turn, back, turn);
  quat.normalize(turn, turn);
}
