import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';
import type { ChassisWay } from '../ride/chassis-motion.js';

/** Steps a radius: a ball is turned by less than a fifth of a radian in each. */
const PER_RADIUS = 6;
/** On a way of more than three thousand radii nobody sees them all: steps get longer there, never more. */
const MOST = 20_000;

/**
 * How a ball has turned in the world, a unit quaternion: at every place it turns by distance over radius about the
 * level axis square to its way, and about no other. The steps are two-point Gauss for rotations (Magnus, Iserles and
 * Nørsett 1999, order four), each a true rotation, so nothing drifts; a lap of a closed path turns it by the same again.
 */
export function compileBall(chassis: ChassisWay, radius: number): (progress: number, out: Quat) => void {
  const { from, to, closed, byDistance, origin } = chassis;
  const span = to - from;
  const wanted = byDistance ? (span * PER_RADIUS) / radius : 8 * span;
  const count = Math.max(8, Math.min(MOST, Math.ceil(wanted)));
  const step = span / count;
  const [before, after] = [new Float64Array(12), new Float64Array(12)];
  const near = byDistance ? 1e-4 : 1e-3;
  /** The turn per unit of progress: up × way / radius. */
  const spin = (progress: number): Vec3 => {
    const low = closed ? progress - near : Math.max(from, progress - near);
    const high = closed ? progress + near : Math.min(to, progress + near);
    chassis.at(low, before);
    chassis.at(high, after);
    const way: Vec3 = [0, 0, 0];
    // The middle of the ball is its radius above the ground.
    for (let k = 0; k < 3; k++)
      way[k] = (after[k] - before[k] + radius * (after[6 + k] - before[6 + k])) / ((high - low) * radius);
    const up: Vec3 = [before[6] + after[6], before[7] + after[7], before[8] + after[8]];
    return vec3.cross(up, vec3.normalize(up, up), way) as Vec3;
  };
  const over = (start: number, length: number): Quat => {
    const off = length * (Math.sqrt(3) / 6);
    const middle = start + length / 2;
    const [a, b] = [spin(middle - off), spin(middle + off)];
    const cross = vec3.cross([0, 0, 0], b, a);
    const turn: Vec3 = [0, 0, 0];
    for (let k = 0; k < 3; k++)
      turn[k] = (length / 2) * (a[k] + b[k]) + ((Math.sqrt(3) * length * length) / 12) * cross[k];
    const angle = vec3.length(turn);
    if (angle < 1e-15) return [0, 0, 0, 1];
    return quat.setAxisAngle([0, 0, 0, 1], vec3.scale(turn, turn, 1 / angle), angle) as Quat;
  };
  const turns: Quat[] = [[0, 0, 0, 1]];
  const upTo = (i: number): Quat => {
    for (let n = turns.length; n <= i; n++) {
      const next = quat.multiply([0, 0, 0, 1], over(from + (n - 1) * step, step), turns[n - 1]);
      turns.push(quat.normalize(next, next) as Quat);
    }
    return turns[i];
  };
  const turnTo = (progress: number, out: Quat): void => {
    const lap = closed ? Math.floor((progress - from) / span) : 0;
    const place = Math.min(span, Math.max(0, progress - from - lap * span));
    const i = Math.min(count - 1, Math.floor(place / step));
    quat.multiply(out, over(from + i * step, place - i * step), upTo(i));
    if (lap === 0) return;
    // A rotation many times over: its angle so many times.
    const whole = upTo(count);
    const axis: Vec3 = [0, 0, 0];
    const angle = quat.getAxisAngle(axis, whole as Quat);
    quat.multiply(out, out, quat.setAxisAngle([0, 0, 0, 1], axis, lap * angle));
  };
  // Counted from the start of its path, also where it comes from before that.
  if (origin === from) return turnTo;
  const begun: Quat = [0, 0, 0, 1];
  turnTo(origin, begun);
  quat.conjugate(begun, begun);
  return (progress, out) => {
    turnTo(progress, out);
    quat.multiply(out, out, begun);
  };
}
