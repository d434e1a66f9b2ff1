import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';

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
 */
export function bendTo(top: Vec3, middle: Vec3, end: Vec3, target: Vec3, pole: Vec3): Bent {
  const upper = vec3.subtract([0, 0, 0], middle, top) as Vec3;
  const lower = vec3.subtract([0, 0, 0], end, middle) as Vec3;
  const [a, b] = [vec3.length(upper), vec3.length(lower)];
  const reach = vec3.distance(target, top);
  const wanted = Math.min(a + b - NEARLY, Math.max(Math.abs(a - b) + NEARLY, reach));
  const angle = (size: number) =>
    Math.acos(Math.min(1, Math.max(-1, (size * size - a * a - b * b) / (2 * a * b))));
  const hinge = vec3.cross([0, 0, 0], upper, lower) as Vec3;
  if (vec3.length(hinge) < 1e-6 * a * b) vec3.cross(hinge, pole, upper);
  vec3.normalize(hinge, hinge);
  // From how far the lower bone is turned out of line to how far it should be.
  const now = Math.atan2(vec3.dot(vec3.cross([0, 0, 0], upper, lower), hinge), vec3.dot(upper, lower));
  const bend = quat.setAxisAngle([0, 0, 0, 1], hinge, angle(wanted) - now) as Quat;
  const bentEnd = vec3.transformQuat([0, 0, 0], lower, bend);
  vec3.add(bentEnd, bentEnd, upper);
  const aim = vec3.subtract([0, 0, 0], target, top);
  const whole = shortestTurn(
    vec3.normalize([0, 0, 0], bentEnd) as Vec3,
    vec3.normalize([0, 0, 0], aim) as Vec3,
    hinge,
  );
  return { lower: bend, whole };
}

/** The turn from one unit direction to another by the shortest way, exact for the smallest angles; about `spare` where they are opposite. */
function shortestTurn(from: Vec3, to: Vec3, spare: Vec3): Quat {
  const real = 1 + vec3.dot(from, to);
  if (real < 1e-12) return quat.setAxisAngle([0, 0, 0, 1], spare, Math.PI) as Quat;
  const [x, y, z] = vec3.cross([0, 0, 0], from, to);
  return quat.normalize([0, 0, 0, 1], [x, y, z, real]) as Quat;
}
