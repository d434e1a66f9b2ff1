import { axesOf } from '../document/rider-axes.js';
import { DEGREES } from '../geometry/math/angle.js';
import { axisVector } from '../motion/pose/axes.js';
import { POSE } from '../motion/pose/pose.js';
import { pointOn } from '../motion/pose/point-on.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';
import { framesText } from './stretches.js';

/** Bank or heading that swings to and fro faster than anything steers. */
export function findRough(look: RiderLook): RawFinding[] {
  // Handheld shake is meant to sway.
  if (!look.moves || look.rider.attachment === null || look.rider.shake !== null) return [];
  const { count, poses } = look;
  const bank = Float64Array.from({ length: count }, (_, i) => poses[look.at(i) + POSE.bank]);
  return [...swings(look, bank, 'bank'), ...swings(look, headings(look), 'heading')];
}

/** Heading of its nose in plan, degrees, unwrapped at half turns. */
function headings(look: RiderLook): Float64Array {
  const nose = axisVector(axesOf(look.rider).forward);
  const tip: Vec3 = [0, 0, 0];
  const out = new Float64Array(look.count);
  for (let i = 0; i < look.count; i++) {
    const pose = look.poses.subarray(look.at(i), look.at(i) + POSE.size);
    pointOn(pose, nose, tip);
    const [x, z] = [tip[0] - pose[0], tip[2] - pose[2]];
    // One that points up or down has no heading: it keeps the last.
    const now = Math.hypot(x, z) < 0.05 && i > 0 ? out[i - 1] : Math.atan2(x, z) * DEGREES;
    out[i] = i === 0 ? now : out[i - 1] + shortestTurnDeg(out[i - 1], now);
  }
  return out;
}

const shortestTurnDeg = (a: number, b: number) => b - a - 360 * Math.round((b - a) / 360);

function swings(look: RiderLook, values: Float64Array, what: 'bank' | 'heading'): RawFinding[] {
  const { limits, fps, first, rider } = look;
  const turns = turningPoints(values, limits.swing);
  // To and fro are two swings: of three on end, each is faster than it may be.
  const longest = fps / limits.swings / 2;
  let [from, to, worst, frame] = [-1, -1, 0, 0];
  for (let k = 3; k < turns.length; k++) {
    const three = [k, k - 1, k - 2];
    if (!three.every((at) => turns[at] - turns[at - 1] < longest)) continue;
    if (from < 0) from = turns[k - 3];
    to = turns[k];
    for (const at of three) {
      const swing = Math.abs(values[turns[at]] - values[turns[at - 1]]);
      if (swing > worst) [worst, frame] = [swing, turns[at]];
    }
  }
  if (from < 0) return [];
  return [
    found(
      'rough',
      'warning',
      {
        rider: rider.id,
        part: what,
        from: first + from,
        to: first + to,
        frame: first + frame,
        distance: look.distanceAt(first + frame),
        figure: worst,
        unit: '°',
        fix: what === 'bank' ? 'widen-bank' : 'smooth-path',
      },
      ({ rider: badge }) =>
        `${badge(rider.id)} shakes: its ${what} oscillates by up to ${worst.toFixed(1)}°, faster than ${limits.swings} times a second, ${framesText({ from: first + from, to: first + to })}.`,
    ),
  ];
}

/** The frames at which a value turns back, each by more than a least swing from the one before; first and last are none. */
function turningPoints(values: Float64Array, least: number): number[] {
  const found: number[] = [];
  let [low, high, way] = [0, 0, 0];
  for (let i = 1; i < values.length; i++) {
    if (way >= 0 && values[i] > values[high]) high = i;
    if (way <= 0 && values[i] < values[low]) low = i;
    if (way >= 0 && values[high] - values[i] > least) {
      if (way > 0 || high > 0) found.push(high);
      [way, low] = [-1, i];
    } else if (way <= 0 && values[i] - values[low] > least) {
      if (way < 0 || low > 0) found.push(low);
      [way, high] = [1, i];
    }
  }
  return found;
}
