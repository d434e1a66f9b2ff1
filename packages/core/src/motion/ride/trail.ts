import { modulo, wrapAngle } from '../../geometry/math/angle.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Vec3 } from '../../geometry/math/vec.js';

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
  readonly travelSign: 1 | -1;
  /** Distances at which the pin may turn suddenly. */
  readonly joints: readonly number[];
}

/** Steps a length of the bar; the error of a fourth-order step is then below 1e-8 rad. */
const PER_BAR = 32;
/** So many lengths of the bar are followed in one go. */
const PIECE = 32;
/**
 * A bar forgets its first heading after a number of its lengths; if it has not, the search goes further back, up to a
 * limit.
 */
const LEAD = { first: 24, most: 96 };
/** Difference of headings at which two starts count as equal, radians. */
const FORGOTTEN = { apart: 0.7, same: 1e-10 };
/** On longer ways, 16 km for a bar of 4 m, the rear axle is taken to be on the way itself: it strays from it by bar² / 2R. */
const MOST_BARS = 4_000;
/** Spacing of samples of the pin's track, metres. */
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
  const { closed, bar, travelSign, length } = pulled;
  if (length > MOST_BARS * bar) return inLineBehind(pin, pulled);
  const toPulled = (s: number) => (travelSign > 0 ? s : length - s);
  const joints = pulled.joints.map(toPulled).sort((a, b) => a - b);
  const way = wayOf(pin, travelSign, (gone) => (travelSign > 0 ? gone : length - gone));
  const ahead: Ways = { direction: new Float64Array(1), speed: new Float64Array(1) };
  const directionAt = (gone: number): number => {
    way(gone, 0, ahead, 0);
    return ahead.direction[0];
  };
  // A closed path is cut into pieces of its own, so that every lap has the same.
  const size = closed ? length / Math.max(1, Math.round(length / (PIECE * bar))) : PIECE * bar;
  const pieces = new Map<number, Piece>();
  const courseOver = (from: number, to: number) =>
    courseOf(way, stepsOf(from, to, bar, jointsBetween(joints, from, to, closed ? length : null)));

  const pieceAt = (index: number): Piece => {
    const cached = pieces.get(index);
    if (cached) return cached;
    const from = index * size;
    let start = 0;
    for (let lead = LEAD.first; lead <= LEAD.most; lead *= 2) {
      const course = courseOver(from - lead * bar, from);
      const inLine = course.begins.direction[0];
      start = lastOf(follow(course, bar, inLine));
      const other = lastOf(follow(course, bar, inLine + FORGOTTEN.apart));
      if (Math.abs(wrapAngle(other - start)) < FORGOTTEN.same) break;
    }
    const piece = follow(courseOver(from, from + size), bar, start);
    pieces.set(index, piece);
    return piece;
  };

  return (s) => {
    const gone = closed ? modulo(toPulled(s), length) : toPulled(s);
    // Far beyond the ends of an open path, where the pin goes straight on, it is in line with it.
    if (!closed && (gone < 0 || gone > length + LEAD.most * bar)) return directionAt(gone);
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
function inLineBehind(pin: Pin, { bar, travelSign }: Pulled): (s: number) => number {
  const front: Vec3 = [0, 0, 0];
  const rear: Vec3 = [0, 0, 0];
  return (s) => {
    pin(s, front);
    pin(s - travelSign * bar, rear);
    return Math.atan2(front[0] - rear[0], front[2] - rear[2]);
  };
}

/** The joints between two places, on a closed path those of every lap. */
function jointsBetween(joints: readonly number[], from: number, to: number, lap: number | null): number[] {
  if (lap === null) return joints.filter((joint) => joint > from && joint < to);
  const laps = Math.ceil((to - from) / lap) + 1;
  // With this many joints in one step they are not resolved.
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

/** Borders of steps, and at which of them the pin may turn. */
interface Steps {
  readonly nodes: Float64Array;
  readonly turns: Uint8Array;
}

/** Steps of even length, with one more border at each joint. */
function stepsOf(from: number, to: number, bar: number, joints: readonly number[]): Steps {
  const count = Math.max(1, Math.ceil((PER_BAR * (to - from)) / bar - 1e-9));
  const step = (to - from) / count;
  // With more joints than steps, the steps are enough.
  const inside = joints.length > 4 * count ? [] : Array.from(new Set(joints)).sort((a, b) => a - b);
  const nodes = new Float64Array(count + 1 + inside.length);
  const turns = new Uint8Array(nodes.length);
  let n = 0;
  let next = 0;
  for (let i = 0; i <= count; i++) {
    const at = i === count ? to : from + i * step;
    for (; next < inside.length && inside[next] < at; next++) {
      nodes[n] = inside[next];
      turns[n++] = 1;
    }
    // Even borders that all but touch a joint give way to it.
    const touches =
      (next < inside.length && inside[next] <= at + step * 1e-3) ||
      (next > 0 && inside[next - 1] >= at - step * 1e-3);
    if (touches && i > 0 && i < count) continue;
    nodes[n++] = at;
  }
  return { nodes: nodes.slice(0, n), turns: turns.slice(0, n) };
}

/** Directions of a pin at some distances, radians, and its travel in plan per metre pulled. */
interface Ways {
  readonly direction: Float64Array;
  readonly speed: Float64Array;
}

/** The way of a pin over some steps: at the beginning, in the middle and at the end of each. */
interface Course {
  readonly nodes: Float64Array;
  readonly begins: Ways;
  readonly middles: Ways;
  readonly ends: Ways;
}

/** Writes the way of a pin at what was pulled: about it (0), just after (1) or just before (−1). */
type WayAt = (gone: number, side: -1 | 0 | 1, out: Ways, i: number) => void;

function wayOf(pin: Pin, travelSign: 1 | -1, distanceAt: (gone: number) => number): WayAt {
  const before: Vec3 = [0, 0, 0];
  const after: Vec3 = [0, 0, 0];
  const scale = travelSign / (2 * NEAR);
  return (gone, side, out, i) => {
    const s = distanceAt(gone + side * 1.01 * NEAR);
    pin(s - NEAR, before);
    pin(s + NEAR, after);
    const x = (after[0] - before[0]) * scale;
    const z = (after[2] - before[2]) * scale;
    out.direction[i] = Math.atan2(x, z);
    out.speed[i] = Math.sqrt(x * x + z * z);
  };
}

function courseOf(way: WayAt, { nodes, turns }: Steps): Course {
  const count = nodes.length - 1;
  const ways = (): Ways => ({ direction: new Float64Array(count), speed: new Float64Array(count) });
  const course = { nodes, begins: ways(), middles: ways(), ends: ways() };
  const { begins, middles, ends } = course;
  for (let i = 0; i < count; i++) {
    // A node at which the pin turns is sampled from both sides.
    if (i > 0 && turns[i] === 0) {
      begins.direction[i] = ends.direction[i - 1];
      begins.speed[i] = ends.speed[i - 1];
    } else way(nodes[i], turns[i] === 1 ? 1 : 0, begins, i);
    way((nodes[i] + nodes[i + 1]) / 2, 0, middles, i);
    way(nodes[i + 1], turns[i + 1] === 1 ? -1 : 0, ends, i);
  }
  return course;
}

/** Follows a bar along a course, by Runge-Kutta steps of the fourth order. */
function follow({ nodes, begins, middles, ends }: Course, bar: number, start: number): Piece {
  const count = nodes.length - 1;
  const headings = new Float64Array(count + 1);
  const [first, last] = [new Float64Array(count), new Float64Array(count)];
  const slope = ({ direction, speed }: Ways, i: number, psi: number) =>
    (speed[i] * Math.sin(direction[i] - psi)) / bar;
  headings[0] = start;
  for (let i = 0; i < count; i++) {
    const psi = headings[i];
    const step = nodes[i + 1] - nodes[i];
    const a = slope(begins, i, psi);
    const b = slope(middles, i, psi + (step / 2) * a);
    const c = slope(middles, i, psi + (step / 2) * b);
    const d = slope(ends, i, psi + step * c);
    headings[i + 1] = psi + (step / 6) * (a + 2 * b + 2 * c + d);
    first[i] = a;
    last[i] = slope(ends, i, headings[i + 1]);
  }
  return { nodes, headings, begins: first, ends: last };
}

const lastOf = ({ headings }: Piece): number => headings[headings.length - 1];
