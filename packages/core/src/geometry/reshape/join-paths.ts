import { vec3 } from 'gl-matrix';
import { freeId } from '../../document/free-name.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { bezierForm } from './change-basis.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { elevateToCubic } from '../path/elevate.js';
import { PathError } from '../path/path-error.js';
import { toLocal, toWorld } from '../path/placement.js';
import { spanBezier, type SplineNet } from '../path/spline-net.js';
import { thinCurve } from './thin.js';

/** Ends nearer to each other than this are one place, metres. */
const SAME_PLACE = 1e-6;
/** Tolerance of the fit of a path that no Bézier path can express exactly, as a part of its length. */
const FIT = 1e-5;

/** Two paths as one, and how far along it the second begins. */
export interface Joined {
  readonly path: ShotPath;
  readonly secondStart: number;
}

/** Which ends of two paths are to meet. */
export interface JoinEnds {
  readonly first: 'start' | 'end';
  readonly second: 'start' | 'end';
}

/** Tensions that are looked through for the gentlest bridge, from the least to the most. */
export const TENSIONS = { least: 0.2, most: 8 } as const;
const TRIALS = 32;
/** Samples of a bridge's segments for its curvature. */
const PER_PIECE = 48;

/** A bridge that is proposed: how far it swings out, and the radius of its tightest bend; both null where the ends are one place. */
export interface ProposedBridge {
  readonly tension: number | null;
  readonly radius: number | null;
}

/**
 * The ends of two open paths that are nearest to each other.
 *
 * @throws PathError where one has no curve
 */
export function nearestEnds(first: ShotPath, second: ShotPath): JoinEnds {
  const [a, b] = [compilePath(first), compilePath(second)];
  const end = (curve: CompiledPath, which: 'start' | 'end'): Vec3 => {
    const place: Vec3 = [0, 0, 0];
    curve.position(which === 'start' ? 0 : curve.length, place);
    return place;
  };
  // An end to a start comes first: of equals it needs no path reversed.
  const pairs: JoinEnds[] = [
    { first: 'end', second: 'start' },
    { first: 'end', second: 'end' },
    { first: 'start', second: 'start' },
    { first: 'start', second: 'end' },
  ];
  const gap = (pair: JoinEnds) => vec3.distance(end(a, pair.first), end(b, pair.second));
  return pairs.reduce((best, pair) => (gap(pair) < gap(best) - 1e-9 ? pair : best));
}

/**
 * The gentlest bridge from the end of one path to the start of another, or of itself.
 *
 * @throws PathError where one has no curve
 */
export function gentlestBridge(first: ShotPath, second: ShotPath): ProposedBridge {
  const a = compilePath(first);
  const b = first === second ? a : compilePath(second);
  const tightness = (tension: number) => {
    const bridge = bridgeBetween(a, b, tension);
    return bridge ? sharpest(bridge) : 0;
  };
  if (bridgeBetween(a, b, 1) === null) return { tension: null, radius: null };
  const { least, most } = TENSIONS;
  const at = (i: number) => least * (most / least) ** (i / TRIALS);
  let best = 0;
  for (let i = 1; i <= TRIALS; i++) if (tightness(at(i)) < tightness(at(best))) best = i;
  let [low, high] = [at(Math.max(0, best - 1)), at(Math.min(TRIALS, best + 1))];
  for (let step = 0; step < 40; step++) {
    const [x, y] = [low + (high - low) * 0.382, low + (high - low) * 0.618];
    if (tightness(x) <= tightness(y)) high = y;
    else low = x;
  }
  const tension = Number(((low + high) / 2).toFixed(3));
  return { tension, radius: radiusOf(tightness(tension)) };
}

/**
 * Between straight ends a bridge may bend with a radius of a third of its gap: half a circle has half of it, and
 * begins abruptly.
 */
const TURN = 3;
/** Samples of a path for its own curvature. */
const LOOKS = 2000;

/**
 * The shortest bridge that bends no tighter than the paths themselves (over straight ends: a third of the gap as radius); where
 * there is none, the gentlest.
 *
 * @throws PathError where one has no curve
 */
export function proposedBridge(first: ShotPath, second: ShotPath): ProposedBridge {
  const a = compilePath(first);
  const b = first === second ? a : compilePath(second);
  const gentle = gentlestBridge(first, second);
  if (gentle.tension === null) return gentle;
  const ends: Vec3[] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  a.position(a.length, ends[0]);
  b.position(0, ends[1]);
  const allowed = Math.max(ownBend(a), ownBend(b), TURN / vec3.distance(ends[0], ends[1]));
  const fits = (tension: number) => {
    const bridge = bridgeBetween(a, b, tension);
    return bridge !== null && sharpest(bridge) <= allowed;
  };
  const { least } = TENSIONS;
  const most = gentle.tension;
  const at = (i: number) => least * (most / least) ** (i / TRIALS);
  let i = 0;
  while (i <= TRIALS && !fits(at(i))) i++;
  if (i > TRIALS) return gentle;
  let [short, fitting] = [at(Math.max(0, i - 1)), at(i)];
  for (let step = 0; step < 30 && i > 0; step++) {
    const middle = (short + fitting) / 2;
    if (fits(middle)) fitting = middle;
    else short = middle;
  }
  const tension = Math.ceil(fitting * 1e3) / 1e3;
  return { tension, radius: bridgeRadius(first, second, tension) };
}

/** The tightest bend of a path away from its corners, 1/m. */
function ownBend(curve: CompiledPath): number {
  let most = 0;
  for (let i = 0; i < LOOKS; i++) most = Math.max(most, curve.bend(((i + 0.5) * curve.length) / LOOKS));
  return most;
}

/** The radius of the tightest bend of the bridge that a tension makes, metres; null where it is straight, or there is none. */
export function bridgeRadius(first: ShotPath, second: ShotPath, tension: number): number | null {
  const a = compilePath(first);
  const bridge = bridgeBetween(a, first === second ? a : compilePath(second), tension);
  return bridge && radiusOf(sharpest(bridge));
}

const radiusOf = (bend: number) => (bend > 1e-6 ? 1 / bend : null);

/** The sharpest bend of some cubics, 1/m. */
function sharpest(pieces: readonly Bezier[]): number {
  let most = 0;
  const first: Vec3 = [0, 0, 0];
  const second: Vec3 = [0, 0, 0];
  const cross: Vec3 = [0, 0, 0];
  for (const [p, q, r, s] of pieces) {
    for (let i = 0; i <= PER_PIECE; i++) {
      const t = i / PER_PIECE;
      for (let k = 0; k < 3; k++) {
        const [a, b, c] = [q[k] - p[k], r[k] - q[k], s[k] - r[k]];
        first[k] = 3 * ((1 - t) ** 2 * a + 2 * t * (1 - t) * b + t * t * c);
        second[k] = 6 * ((1 - t) * (b - a) + t * (c - b));
      }
      const speed = vec3.length(first);
      if (speed > 1e-9) most = Math.max(most, vec3.length(vec3.cross(cross, first, second)) / speed ** 3);
    }
  }
  return most;
}

/**
 * A path that runs along the first, over a bridge, and along the second. Where the ends stand apart the
 * bridge takes over place, direction and curvature on either side; where they stand in one place there is
 * none. Name, id and transform are those of the first.
 *
 * @param tension how far the bridge swings out, 1 for as far as the gap is wide
 * @throws PathError where one has no curve or is closed
 */
export function joinPaths(first: ShotPath, second: ShotPath, tension: number): Joined {
  for (const path of [first, second]) {
    if (path.closed)
      throw new PathError(`Path "${path.name}" is closed: it has no end to join. Open it first.`);
  }
  const a = compilePath(first);
  const b = compilePath(second);
  const head = asBezier(first, a);
  const tail = moved(asBezier(second, b), first);
  const bridge = bridgeBetween(a, b, tension);
  const points = [...head.points];
  const last = points.length - 1;
  if (bridge === null) {
    // One place, two directions: the corner, if there is one, stays.
    points[last] = { ...points[last], out: tail.points[0].out, handles: 'corner' };
    points.push(...tail.points.slice(1));
  } else {
    const middle = bezierPath(first, bridge, false, () => 0).points;
    const rolls = [points[last].roll, tail.points[0].roll];
    const inner = middle.slice(1, -1).map((point, i) => ({
      ...point,
      roll: rolls[0] + ((rolls[1] - rolls[0]) * (i + 1)) / (middle.length - 1),
    }));
    points[last] = { ...points[last], out: middle[0].out, handles: 'smooth' };
    const start = { ...tail.points[0], in: middle[middle.length - 1].in, handles: 'smooth' as const };
    points.push(...inner, start, ...tail.points.slice(1));
  }
  const path: ShotPath = { ...head, points };
  const whole = compilePath(path);
  const secondStart = whole.length - b.length;
  const marks = [...first.marks];
  for (const mark of second.marks) {
    marks.push({ ...mark, id: freeId(mark.id, marks), distance: mark.distance + secondStart });
  }
  return { path: { ...path, marks }, secondStart };
}

/**
 * An open path closed by a bridge from its end to its start that takes over place, direction and curvature.
 *
 * @throws PathError where there is no curve or the path is closed
 */
export function closeWithBridge(path: ShotPath, tension: number): ShotPath {
  if (path.closed) throw new PathError(`Path "${path.name}" is closed already.`);
  const curve = compilePath(path);
  const bezier = asBezier(path, curve);
  const bridge = bridgeBetween(curve, curve, tension);
  const points = [...bezier.points];
  const last = points.length - 1;
  if (bridge === null) {
    points[0] = { ...points[0], in: points[last].in, handles: 'corner' };
    return { ...bezier, closed: true, points: points.slice(0, -1) };
  }
  const middle = bezierPath(path, bridge, false, () => points[last].roll).points;
  points[last] = { ...points[last], out: middle[0].out, handles: 'smooth' };
  points[0] = { ...points[0], in: middle[middle.length - 1].in, handles: 'smooth' };
  return { ...bezier, closed: true, points: [...points, ...middle.slice(1, -1)] };
}

function asBezier(path: ShotPath, curve: CompiledPath): ShotPath {
  const bezier = bezierForm(path) ?? thinCurve(path, curve, curve.length * FIT);
  return { ...bezier, points: bezier.points.filter((point) => !point.off) };
}

/** A Bézier path's points in another path's own space. */
function moved(path: ShotPath, into: ShotPath): ShotPath {
  const place = (local: Vec3) => toLocal(into.transform, toWorld(path.transform, local));
  return {
    ...path,
    transform: into.transform,
    points: path.points.map((point) => {
      const position = place(point.position);
      const handle = (end: Vec3): Vec3 =>
        vec3.subtract([0, 0, 0], place(vec3.add([0, 0, 0], point.position, end) as Vec3), position) as Vec3;
      return { ...point, position, in: handle(point.in), out: handle(point.out) };
    }),
  };
}

/**
 * Three cubics from the end of one curve to the start of another: a cubic B-spline on the knots 0 1 2 3,
 * whose three first control points are set by place, first and second derivative at one end and the three
 * last by those at the other. Null where the ends are one place.
 */
function bridgeBetween(a: CompiledPath, b: CompiledPath, tension: number): Bezier[] | null {
  const [from, to]: Vec3[] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const end = a.length * (1 - 1e-12);
  a.position(a.length, from);
  b.position(0, to);
  const gap = vec3.distance(from, to);
  if (gap < SAME_PLACE) return null;
  // Along the bridge the parameter runs from 0 to 3, so this is the speed that covers the gap.
  const speed = (gap / 3) * tension * 1.2;
  const first = endControls(a, end, from, speed);
  const last = endControls(b, 0, to, -speed).reverse();
  const net: SplineNet = {
    degree: 3,
    knots: [0, 0, 0, 0, 1, 2, 3, 3, 3, 3],
    controls: [...first, ...last].map((place) => [...place, 1]),
  };
  return [3, 4, 5].map((k) => elevateToCubic(spanBezier(net, k)));
}

/** The outer three control points that give a clamped cubic spline a place, direction and curvature. */
function endControls(path: CompiledPath, s: number, place: Vec3, speed: number): Vec3[] {
  const tangent: Vec3 = [0, 0, 0];
  const bend: Vec3 = [0, 0, 0];
  path.tangent(s, tangent);
  path.curvatureVector(s, bend);
  // On knots 0 0 0 0 1 2: r′ = 3 (P1 − P0), r″ = 6 (P0 − 1.5 P1 + 0.5 P2).
  const p1 = vec3.scaleAndAdd([0, 0, 0], place, tangent, speed / 3) as Vec3;
  const p2 = [0, 1, 2].map((k) => (bend[k] * speed * speed) / 3 - 2 * place[k] + 3 * p1[k]) as Vec3;
  return [place, p1, p2];
}
