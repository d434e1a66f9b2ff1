import { modulo } from '../math/angle.js';
import { lastAtMost } from '../math/search.js';
import type { Vec3 } from '../math/vec.js';

/** Writes where something is held, metres, at a distance along its path. */
export type Pin = (s: number, out: Vec3) => void;

/** How a bar is pulled along. */
export interface Pulled {
  /** Metres, of the path. */
  readonly length: number;
  readonly closed: boolean;
  /** From the pin to the axle that follows, metres, above 0. */
  readonly bar: number;
  /** −1 where it is pulled along the path backwards. */
  readonly sense: 1 | -1;
  /** Distances at which the pin may turn all at once. */
  readonly joints: readonly number[];
}

/** Steps a length of the bar; the error of a fourth-order step is then below 1e-8 rad. */
const PER_BAR = 32;
const FEWEST = 64;
const MOST = 1 << 18;
/** Before an open path and after it the bar is followed for so many of its lengths; after that it is in line. */
const BEYOND = 12;
/** Rounds after which a closed path's trail meets itself, at the latest. */
const ROUNDS = 60;
/** The pin's way is told from places so far apart, metres. */
const NEAR = 1e-4;

/**
 * The heading of a bar whose front is pulled along and whose rear axle rolls where it points, radians: 0 along +Z, growing to
 * the left. dψ/ds = sin(θ − ψ) / bar, the tractrix of the pin's way in plan (θ its direction), by Runge-Kutta
 * steps and cubics between them. On a closed path it is the trail that repeats with every lap; on an open one it begins in line, some
 * lengths of the bar before the path does.
 */
export function compileTrail(pin: Pin, pulled: Pulled): (s: number) => number {
  const { closed, bar, sense } = pulled;
  const lead = closed ? 0 : BEYOND * bar;
  // From here on, as pulled: 0 is where the trail begins.
  const length = pulled.length + 2 * lead;
  const toPulled = (s: number) => (sense > 0 ? s + lead : length - lead - s);
  const joints = pulled.joints.map(toPulled).map((at) => (closed ? modulo(at, length) : at));
  const { nodes, turns } = stepsOf(length, bar, joints);
  const count = nodes.length - 1;
  const way = wayOf(pin, sense, (gone) => (sense > 0 ? gone - lead : length - lead - gone));
  // A node at which the pin turns is looked at from either side.
  const begins = Array.from({ length: count }, (_, i) => way(nodes[i], turns[i] ? 1 : 0));
  const middles = Array.from({ length: count }, (_, i) => way((nodes[i] + nodes[i + 1]) / 2, 0));
  const ends = Array.from({ length: count }, (_, i) => way(nodes[i + 1], turns[i + 1] ? -1 : 0));
  const slope = ([direction, speed]: Way, psi: number) => (speed * Math.sin(direction - psi)) / bar;
  const headings = new Float64Array(count + 1);
  const run = (start: number) => {
    headings[0] = start;
    for (let i = 0; i < count; i++) {
      const psi = headings[i];
      const step = nodes[i + 1] - nodes[i];
      const a = slope(begins[i], psi);
      const b = slope(middles[i], psi + (step / 2) * a);
      const c = slope(middles[i], psi + (step / 2) * b);
      const d = slope(ends[i], psi + step * c);
      headings[i + 1] = psi + (step / 6) * (a + 2 * b + 2 * c + d);
    }
  };
  run(begins[0][0]);
  let turn = 0;
  if (closed) {
    for (let round = 0; round < ROUNDS; round++) {
      const end = headings[count];
      turn = 2 * Math.PI * Math.round((end - headings[0]) / (2 * Math.PI));
      if (Math.abs(end - headings[0] - turn) < 1e-13) break;
      run(end - turn);
    }
  }
  return (s) => {
    const gone = toPulled(s);
    const lap = closed ? Math.floor(gone / length) : 0;
    const place = Math.min(length, Math.max(0, gone - lap * length));
    const i = lastAtMost(nodes, place, count);
    const step = nodes[i + 1] - nodes[i];
    const t = (place - nodes[i]) / step;
    const [p, q] = [headings[i], headings[i + 1]];
    const [dp, dq] = [step * slope(begins[i], p), step * slope(ends[i], q)];
    const rest = q - p;
    // Hermite's cubic.
    return lap * turn + p + t * (dp + t * (3 * rest - 2 * dp - dq + t * (dp + dq - 2 * rest)));
  };
}

/** Steps of even length, with one more border at each joint; and at which borders the pin may turn. */
function stepsOf(
  length: number,
  bar: number,
  joints: readonly number[],
): { nodes: Float64Array; turns: boolean[] } {
  const count = Math.min(MOST, Math.max(FEWEST, Math.ceil((PER_BAR * length) / bar)));
  const step = length / count;
  const inside = joints.filter((joint) => joint > 0 && joint < length);
  // Even borders that all but touch a joint give way to it.
  const near = (at: number) => inside.some((joint) => Math.abs(joint - at) < step * 1e-3);
  const sparse = inside.length > count;
  const even = Array.from({ length: count + 1 }, (_, i) => i * step);
  const kept = even.filter((at, i) => i === 0 || i === count || sparse || !near(at));
  const turning = new Set(inside);
  const nodes = Float64Array.from(new Set([...kept, ...inside])).sort();
  return { nodes, turns: Array.from(nodes, (at) => turning.has(at)) };
}

/** Where a pin goes, radians, and how far in plan per metre pulled. */
type Way = readonly [direction: number, speed: number];

/** The way of a pin at what was pulled: about it (0), just after (1) or just before (−1). */
function wayOf(
  pin: Pin,
  sense: 1 | -1,
  distanceAt: (gone: number) => number,
): (gone: number, side: -1 | 0 | 1) => Way {
  const before: Vec3 = [0, 0, 0];
  const after: Vec3 = [0, 0, 0];
  return (gone, side) => {
    const s = distanceAt(gone + side * 1.01 * NEAR);
    pin(s - NEAR, before);
    pin(s + NEAR, after);
    const scale = sense / (2 * NEAR);
    const [x, z] = [(after[0] - before[0]) * scale, (after[2] - before[2]) * scale];
    return [Math.atan2(x, z), Math.hypot(x, z)];
  };
}
