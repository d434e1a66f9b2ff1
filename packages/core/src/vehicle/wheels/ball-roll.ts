import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { ChassisTrack } from '../../motion/ride/chassis-motion.js';

/** Steps a radius: a ball is turned by less than a fifth of a radian in each. */
const PER_RADIUS = 6;
/** On a path of more than three thousand radii steps are longer, never more. */
const MOST = 20_000;

/**
 * How a ball has turned in the world, a unit quaternion: at every place it turns by distance over radius about the
 * level axis square to its way, and about no other. The steps are two-point Gauss for rotations (Magnus, Iserles and
 * Nørsett 1999, order four), each a true rotation, so nothing drifts; a lap of a closed path turns it by the same again.
 */
export function compileBall(chassis: ChassisTrack, radius: number): (progress: number, out: Quat) => void {
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
  /** Turns over whole steps from the origin, forward and backward: as far as needed. */
  const turns: readonly [Quat[], Quat[]] = [[[0, 0, 0, 1]], [[0, 0, 0, 1]]];
  const upTo = (steps: number, back: boolean): Quat => {
    const known = turns[back ? 1 : 0];
    for (let n = known.length; n <= steps; n++) {
      const turn = back ? over(origin - (n - 1) * step, -step) : over(origin + (n - 1) * step, step);
      const next = quat.multiply([0, 0, 0, 1], turn, known[n - 1]);
      known.push(quat.normalize(next, next) as Quat);
    }
    return known[steps];
  };
  return (progress, out) => {
    const lap = closed ? Math.floor((progress - from) / span) : 0;
    const along = Math.min(to, Math.max(from, progress - lap * span)) - origin;
    const back = along < 0;
    const steps = Math.floor(Math.abs(along) / step);
    const begin = back ? -steps * step : steps * step;
    quat.multiply(out, over(origin + begin, along - begin), upTo(steps, back));
    if (lap === 0) return;
    // A rotation with its angle multiplied.
    const axis: Vec3 = [0, 0, 0];
    const angle = quat.getAxisAngle(axis, upTo(count, false));
    quat.multiply(out, out, quat.setAxisAngle([0, 0, 0, 1], axis, lap * angle));
  };
}
