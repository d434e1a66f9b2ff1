import { modulo, wrapAngle } from '../math/angle.js';
import { lastAtMost, lowerBound } from '../math/search.js';
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
/** So many lengths of the bar are followed in one go. */
const PIECE = 32;
/** A bar has forgotten how it stood after so many of its lengths; where it has not, it is looked back further, up to so many. */
const LEAD = { first: 24, most: 96 };
/** That is when it comes to the same from two ways of standing, radians. */
const FORGOTTEN = { apart: 0.7, same: 1e-10 };
/** On longer ways, 16 km for a bar of 4 m, the rear axle is taken to be on the way itself: it strays from it by bar² / 2R. */
const MOST_BARS = 4_000;
/** The pin's way is told from places so far apart, metres. */
const NEAR = 1e-4;

/** Headings along a piece of the way, and how they change at both ends of each step, per metre pulled. */
interface Piece {
  readonly nodes: Float64Array;
  readonly headings: Float64Array;
  readonly begins: Float64Array;
  readonly ends: Float64Array;
}

/**
 * The heading of a bar whose front is pulled along and whose rear axle rolls where it points, radians: 0 along +Z, growing to
 * the left. dψ/ds = sin(θ − ψ) / bar, the tractrix of the pin's way in plan (θ its direction), by Runge-Kutta
 * steps and cubics between them. It is followed where it is asked for, from so far back that it matters no more how it
 * stood: so on a closed path the trail repeats with every lap, on an open one it begins in line, and a long path costs no
 * more than a short one.
 */
export function compileTrail(pin: Pin, pulled: Pulled): (s: number) => number {
  const { closed, bar, sense, length } = pulled;
  if (length > MOST_BARS * bar) return inLineBehind(pin, pulled);
  const toPulled = (s: number) => (sense > 0 ? s : length - s);
  const joints = pulled.joints.map(toPulled).sort((a, b) => a - b);
  const way = wayOf(pin, sense, (gone) => (sense > 0 ? gone : length - gone));
  const slope = ([direction, speed]: Way, psi: number) => (speed * Math.sin(direction - psi)) / bar;
  // A closed path is cut into pieces of its own, so that every lap has the same.
  const size = closed ? length / Math.max(1, Math.round(length / (PIECE * bar))) : PIECE * bar;
  const pieces = new Map<number, Piece>();

  const follow = (from: number, to: number, start: number): Piece => {
    const { nodes, turns } = stepsOf(from, to, bar, jointsBetween(joints, from, to, closed ? length : null));
    const count = nodes.length - 1;
    const headings = new Float64Array(count + 1);
    const [begins, ends] = [new Float64Array(count), new Float64Array(count)];
    headings[0] = start;
    for (let i = 0; i < count; i++) {
      const psi = headings[i];
      const step = nodes[i + 1] - nodes[i];
      // A node at which the pin turns is looked at from either side.
      const begin = way(nodes[i], turns[i] ? 1 : 0);
      const middle = way((nodes[i] + nodes[i + 1]) / 2, 0);
      const end = way(nodes[i + 1], turns[i + 1] ? -1 : 0);
      const a = slope(begin, psi);
      const b = slope(middle, psi + (step / 2) * a);
      const c = slope(middle, psi + (step / 2) * b);
      const d = slope(end, psi + step * c);
      headings[i + 1] = psi + (step / 6) * (a + 2 * b + 2 * c + d);
      begins[i] = a;
      ends[i] = slope(end, headings[i + 1]);
    }
    return { nodes, headings, begins, ends };
  };
  const headingAt = (from: number, to: number, start: number) =>
    follow(from, to, start).headings.at(-1) ?? start;

  const pieceAt = (index: number): Piece => {
    const cached = pieces.get(index);
    if (cached) return cached;
    const from = index * size;
    let start = 0;
    for (let lead = LEAD.first; lead <= LEAD.most; lead *= 2) {
      const [inLine] = way(from - lead * bar, 0);
      start = headingAt(from - lead * bar, from, inLine);
      const other = headingAt(from - lead * bar, from, inLine + FORGOTTEN.apart);
      if (Math.abs(wrapAngle(other - start)) < FORGOTTEN.same) break;
    }
    const piece = follow(from, from + size, start);
    pieces.set(index, piece);
    return piece;
  };

  return (s) => {
    const gone = closed ? modulo(toPulled(s), length) : toPulled(s);
    // Far beyond the ends of an open path, where the pin goes straight on, it is in line with it.
    if (!closed && (gone < 0 || gone > length + LEAD.most * bar)) return way(gone, 0)[0];
    const index = Math.floor(gone / size);
    const { nodes, headings, begins, ends } = pieceAt(index);
    const i = lastAtMost(nodes, gone, nodes.length - 1);
    const step = nodes[i + 1] - nodes[i];
    const t = Math.min(1, Math.max(0, (gone - nodes[i]) / step));
    const [p, q] = [headings[i], headings[i + 1]];
    const [dp, dq] = [step * begins[i], step * ends[i]];
    const rest = q - p;
    // Hermite's cubic.
    return p + t * (dp + t * (3 * rest - 2 * dp - dq + t * (dp + dq - 2 * rest)));
  };
}

/** The heading of a bar whose rear axle is on the pin's own way. */
function inLineBehind(pin: Pin, { bar, sense }: Pulled): (s: number) => number {
  const front: Vec3 = [0, 0, 0];
  const rear: Vec3 = [0, 0, 0];
  return (s) => {
    pin(s, front);
    pin(s - sense * bar, rear);
    return Math.atan2(front[0] - rear[0], front[2] - rear[2]);
  };
}

/** The joints between two places, on a closed path those of every lap. */
function jointsBetween(joints: readonly number[], from: number, to: number, lap: number | null): number[] {
  if (lap === null) return joints.filter((joint) => joint > from && joint < to);
  const laps = Math.ceil((to - from) / lap) + 1;
  // So many turns within one step are none to be told apart.
  if (laps * joints.length > MOST_JOINTS) return [];
  const first = Math.floor(from / lap);
  const found: number[] = [];
  for (let n = first; n <= first + laps; n++)
    for (const joint of joints) {
      const at = joint + n * lap;
      if (at > from && at < to) found.push(at);
    }
  return found;
}

const MOST_JOINTS = 100_000;

/** Steps of even length, with one more border at each joint; and at which borders the pin may turn. */
function stepsOf(
  from: number,
  to: number,
  bar: number,
  joints: readonly number[],
): { nodes: Float64Array; turns: boolean[] } {
  const count = Math.max(1, Math.ceil((PER_BAR * (to - from)) / bar - 1e-9));
  const step = (to - from) / count;
  // Where more turns than steps come by, steps say enough.
  const inside = joints.length > 4 * count ? [] : [...joints].sort((a, b) => a - b);
  // Even borders that all but touch a joint give way to it.
  const near = (at: number) => {
    const i = lowerBound(inside, at - step * 1e-3);
    return i < inside.length && inside[i] <= at + step * 1e-3;
  };
  const even = Array.from({ length: count + 1 }, (_, i) => (i === count ? to : from + i * step));
  const kept = even.filter((at, i) => i === 0 || i === count || !near(at));
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
