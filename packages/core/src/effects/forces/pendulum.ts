import { vec3 } from 'gl-matrix';
import { GRAVITY } from '../../geometry/math/gravity.js';
import type { Vec3 } from '../../geometry/math/vec.js';

/** How the place that something hangs on moves, at one moment: the acceleration there, how fast it turns and how that changes, in the world. */
export interface Pivot {
  /** m/s² */
  readonly push: Vec3;
  /** rad/s */
  readonly spin: Vec3;
  /** rad/s² */
  readonly turning: Vec3;
  /** Vector from its hinge to its centre of mass in the rest pose, rotated with its rider. */
  readonly stands: Vec3;
  /** Unit, of a hinge; any for a ball joint. */
  readonly axis: Vec3;
}

/** A mass on a weightless bar. */
export interface Bob {
  readonly mass: number;
  /** Newton metres a radian. */
  readonly stiffness: number;
  /** Damping of its swing, per second. */
  readonly damping: number;
}

const down: Vec3 = [0, 0, 0];
const across: Vec3 = [0, 0, 0];
const own: Vec3 = [0, 0, 0];
const arm: Vec3 = [0, 0, 0];

/** Forces on a mass besides its bar: gravity, and inertia against the motion of its hinge. */
function felt({ push }: Pivot): Vec3 {
  return vec3.set(down, -push[0], -GRAVITY - push[1], -push[2]) as Vec3;
}

/**
 * Rate of change of a bar on a ball joint: a spherical pendulum with a moving joint, a spring to its rest pose, and
 * friction against its rider.
 *
 * @param state direction (unit) and its rate a second, six numbers
 * @param out   the rates of those
 */
export function ballRates(bob: Bob, pivot: Pivot, state: Float64Array, out: Float64Array): void {
  const { spin, stands } = pivot;
  const length = vec3.length(stands);
  const force = felt(pivot);
  vec3.set(arm, state[0], state[1], state[2]);
  const along = vec3.dot(force, arm);
  const speed = state[3] ** 2 + state[4] ** 2 + state[5] ** 2;
  // Velocity that friction drives it to: that of its rider.
  vec3.cross(own, spin, arm);
  const stiff = bob.stiffness / (bob.mass * length * length);
  const cosine = vec3.dot(arm, stands) / length;
  vec3.scale(across, stands, 1 / length);
  vec3.scaleAndAdd(across, across, arm, -cosine);
  const sine = vec3.length(across);
  const pull = sine > 1e-12 ? (stiff * Math.atan2(sine, cosine)) / sine : 0;
  for (let k = 0; k < 3; k++) {
    out[k] = state[3 + k];
    out[3 + k] =
      (force[k] - along * arm[k]) / length -
      speed * arm[k] +
      pull * across[k] +
      bob.damping * (own[k] - state[3 + k]);
  }
}

/**
 * Rate of change of the angle of a bar on a hinge that turns with its rider.
 *
 * @param state angle from how it stands and its rate a second, radians
 */
export function hingeRates(bob: Bob, pivot: Pivot, state: Float64Array, out: Float64Array): void {
  const { spin, turning, stands, axis } = pivot;
  turnAbout(arm, stands, axis, state[0]);
  vec3.cross(across, axis, arm);
  const square = vec3.squaredLength(across);
  const force = felt(pivot);
  // Effect of the rider's turning: lag as it begins, and centrifugal force.
  vec3.cross(own, turning, arm);
  vec3.subtract(force, force, own);
  vec3.cross(own, spin, arm);
  vec3.cross(own, spin, own);
  vec3.subtract(force, force, own);
  const size = vec3.squaredLength(arm);
  out[0] = state[1];
  out[1] =
    (square > 0 ? vec3.dot(force, across) / square : 0) -
    (size > 0 ? (bob.stiffness / (bob.mass * size)) * state[0] : 0) -
    bob.damping * state[1];
}

/** A direction turned about a unit axis, by Rodrigues' formula. */
export function turnAbout(out: Vec3, direction: Vec3, axis: Vec3, angle: number): void {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  vec3.cross(own, axis, direction);
  const along = vec3.dot(axis, direction) * (1 - cos);
  for (let k = 0; k < 3; k++) out[k] = cos * direction[k] + sin * own[k] + along * axis[k];
}
