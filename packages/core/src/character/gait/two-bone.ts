import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/** The turns, in the space the places are given in, that bring the end of two bones to a place. */
export interface Bent {
  /** Of the lower bone about its upper end, done first. */
  readonly lower: Quat;
  /** Of both about the upper one's upper end, done after. */
  readonly whole: Quat;
}

/** So near to fully stretched or folded two bones go. */
const NEARLY = 1e-9;

/**
 * Two-bone inverse kinematics in closed form, by the law of cosines: the middle bends in the plane it bends in now, and then
 * the whole turns by the shortest way. A place out of reach is pointed to.
 *
 * @param pole where the middle would bend to if the bones were in line
 * @param out  where the turns are written
 */
export function bendTo(top: Vec3, middle: Vec3, end: Vec3, target: Vec3, pole: Vec3, out: Bent): void {
  vec3.subtract(upper, middle, top);
  vec3.subtract(lower, end, middle);
  vec3.subtract(aim, target, top);
  const a = vec3.length(upper);
  const b = vec3.length(lower);
  const wanted = Math.min(a + b - NEARLY, Math.max(Math.abs(a - b) + NEARLY, vec3.length(aim)));
  vec3.cross(bend, upper, lower);
  if (vec3.length(bend) < 1e-6 * a * b) vec3.cross(hinge, pole, upper);
  else vec3.copy(hinge, bend);
  vec3.normalize(hinge, hinge);
  // From how far the lower bone is turned out of line to how far it should be.
  const now = Math.atan2(vec3.dot(bend, hinge), vec3.dot(upper, lower));
  const cosine = (wanted * wanted - a * a - b * b) / (2 * a * b);
  quat.setAxisAngle(out.lower, hinge, Math.acos(Math.min(1, Math.max(-1, cosine))) - now);
  vec3.transformQuat(bentEnd, lower, out.lower);
  vec3.add(bentEnd, bentEnd, upper);
  vec3.normalize(bentEnd, bentEnd);
  vec3.normalize(aim, aim);
  shortestTurn(bentEnd, aim, hinge, out.whole);
}

/** The turn from one unit direction to another by the shortest way, exact for the smallest angles; about `spare` where they are opposite. */
function shortestTurn(from: Vec3, to: Vec3, spare: Vec3, out: Quat): void {
  const real = 1 + vec3.dot(from, to);
  if (real < 1e-12) {
    quat.setAxisAngle(out, spare, Math.PI);
    return;
  }
  vec3.cross(axis, from, to);
  quat.set(out, axis[0], axis[1], axis[2], real);
  quat.normalize(out, out);
}

const upper: Vec3 = [0, 0, 0];
const lower: Vec3 = [0, 0, 0];
const aim: Vec3 = [0, 0, 0];
const bend: Vec3 = [0, 0, 0];
const hinge: Vec3 = [0, 0, 0];
const bentEnd: Vec3 = [0, 0, 0];
const axis: Vec3 = [0, 0, 0];
