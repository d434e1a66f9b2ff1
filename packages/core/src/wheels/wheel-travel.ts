import { gaussLegendreRule } from '../math/gauss-legendre.js';
import type { ChassisMotion } from '../rider/chassis-motion.js';

/** How the ground goes by under a wheel, per unit of its rider's progress: metres ahead and to the left. */
export interface WheelRate {
  ahead: number;
  left: number;
}

/** A wheel that rolls: how far, and how it is steered to do so. */
export interface WheelTravel {
  /** Metres rolled since the start of the path (or of the range), at a progress; negative in reverse. */
  rolled(progress: number): number;
  /** Metres rolled per unit of progress. */
  speed(progress: number): number;
  /** The angle at which it would not slip, radians, positive to the left. */
  steer(progress: number): number;
  /** Metres of sideways slip per unit of progress: nothing where it steers. */
  slip(progress: number): number;
}

const RULE = gaussLegendreRule(5);
/** Derivatives are central differences over so much progress: metres, or frames. */
const NEAR = { metres: 1e-4, frames: 1e-3 };
/** Stretches no longer than these are summed up at once. */
const CELL = { metres: 0.5, frames: 0.5 };

/**
 * Rolling without sliding: the integral of the contact point's own speed, ahead where the wheel is fixed, and along
 * its own steered way where it steers, in space (so up hills too), by Gauss-Legendre between the places where bends
 * may change. On a circle of radius R a wheel y to the left has rolled s (1 − y / R).
 *
 * @param contact metres ahead, to the left and up of the rider's origin
 */
export function compileWheel(
  chassis: ChassisMotion,
  contact: readonly [number, number, number],
  steers: boolean,
): WheelTravel {
  const unit = chassis.byDistance ? 'metres' : 'frames';
  const near = NEAR[unit];
  const frames = [new Float64Array(12), new Float64Array(12), new Float64Array(12)];
  const now: WheelRate = { ahead: 0, left: 0 };
  const { from, to, closed } = chassis;
  const rateAt = (progress: number): WheelRate => {
    const low = closed ? progress - near : Math.max(from, progress - near);
    const high = closed ? progress + near : Math.min(to, progress + near);
    const [before, here, after] = frames;
    chassis.at(low, before);
    chassis.at(progress, here);
    chassis.at(high, after);
    let [ahead, left] = [0, 0];
    for (let k = 0; k < 3; k++) {
      let moved = after[k] - before[k];
      moved += contact[0] * (after[9 + k] - before[9 + k]);
      moved += contact[1] * (after[3 + k] - before[3 + k]);
      moved += contact[2] * (after[6 + k] - before[6 + k]);
      ahead += (moved * here[9 + k]) / (high - low);
      left += (moved * here[3 + k]) / (high - low);
    }
    now.ahead = ahead;
    now.left = left;
    return now;
  };
  const speedAt = (progress: number): number => {
    const { ahead, left } = rateAt(progress);
    return steers ? Math.sign(ahead || 1) * Math.hypot(ahead, left) : ahead;
  };
  const between = (a: number, b: number): number => {
    let sum = 0;
    const half = (b - a) / 2;
    for (let i = 0; i < RULE.nodes.length; i++)
      sum += RULE.weights[i] * speedAt(a + half * (1 + RULE.nodes[i]));
    return sum * half;
  };
  const edges = edgesOf(chassis, CELL[unit]);
  /** What is rolled up to each edge, as far as it was asked for. */
  const sums: number[] = [0];
  const upTo = (edge: number): number => {
    for (let i = sums.length; i <= edge; i++) sums.push(sums[i - 1] + between(edges[i - 1], edges[i]));
    return sums[edge];
  };
  return {
    rolled(progress) {
      const length = to - from;
      const lap = closed ? Math.floor((progress - from) / length) : 0;
      const place = Math.min(to, Math.max(from, progress - lap * length));
      const i = lastAtMost(edges, place);
      const whole = lap === 0 ? 0 : lap * upTo(edges.length - 1);
      return whole + upTo(i) + (place > edges[i] ? between(edges[i], place) : 0);
    },
    speed: speedAt,
    steer(progress) {
      const { ahead, left } = rateAt(progress);
      if (Math.hypot(ahead, left) < 1e-12) return 0;
      return ahead < 0 ? Math.atan2(-left, -ahead) : Math.atan2(left, ahead);
    },
    slip: (progress) => (steers ? 0 : rateAt(progress).left),
  };
}

/** Where stretches begin and end: at joints, and never longer than a cell. */
function edgesOf({ from, to, joints }: ChassisMotion, cell: number): Float64Array {
  const corners = [from, ...joints.filter((joint) => joint > from && joint < to), to];
  const edges = [from];
  for (let i = 1; i < corners.length; i++) {
    const length = corners[i] - corners[i - 1];
    const parts = Math.max(1, Math.ceil(length / cell));
    for (let k = 1; k <= parts; k++) edges.push(corners[i - 1] + (length * k) / parts);
  }
  return Float64Array.from(edges);
}

function lastAtMost(edges: Float64Array, place: number): number {
  let low = 0;
  let high = edges.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (edges[middle] <= place) low = middle;
    else high = middle - 1;
  }
  return low;
}
