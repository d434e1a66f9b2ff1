import type { ShotPath } from '../../document/shot-path.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { fitCubics } from './fit-cubics.js';
import { PathError } from '../path/path-error.js';
import { sampleStretch, smoothStretches } from './sample-stretch.js';

/** A place of the offset curve. */
interface Side {
  readonly position: Vec3;
  /** The direction in which the offset curve is travelled; against that of the path where it runs back. */
  readonly tangent: Vec3;
  /** Whether the offset runs backward here, since the path bends tighter than the offset is wide. */
  readonly back: boolean;
  /** Distance on the path, metres. */
  readonly distance: number;
  /** The direction breaks here: what follows begins anew, with the tangent of the next place. */
  readonly breaks: boolean;
}

/** Close enough for crossings, which are taken between straight chords. */
const SAMPLES_PER_SEGMENT = 64;

/** Round joints of outer corners are drawn in steps of this many radians. */
const JOINT_STEP = Math.PI / 24;

/**
 * A path beside the path, level to its left by `side` metres (to its right below nought), within a
 * tolerance, as Bézier; heights are kept. Outer corners are rounded. Where the path bends tighter than the
 * offset is wide the offset crosses itself; such loops are cut off at the crossing.
 *
 * @param tolerance metres, above 0
 * @throws PathError where the path has no curve, or where nothing of the offset is left
 */
export function offsetSideways(path: ShotPath, side: number, tolerance: number): ShotPath {
  const curve = compilePath(path);
  const whole = offsetPlaces(curve, side);
  const trimmed = trimLoops(whole, curve.closed, path.name);
  const pieces: Bezier[] = [];
  const distances: number[] = [];
  for (const run of runsOf(trimmed)) {
    const positions = Float64Array.from(run.flatMap(({ position }) => position));
    const tangents = Float64Array.from(run.flatMap(({ tangent }) => tangent));
    for (const piece of fitCubics({ positions, tangents }, tolerance)) {
      pieces.push(piece.bezier);
      distances.push(run[piece.from].distance);
    }
  }
  if (curve.closed) {
    const last = pieces.length - 1;
    pieces[last] = [pieces[last][0], pieces[last][1], pieces[last][2], pieces[0][0]];
  }
  const rollAt = (i: number) => curve.rollDegrees(distances[i] ?? curve.length);
  return bezierPath(path, pieces, curve.closed, rollAt);
}

/** Places of the offset curve, not yet trimmed. On a closed path the last is the first again. */
function offsetPlaces(curve: CompiledPath, side: number): Side[] {
  const result: Side[] = [];
  const bend: Vec3 = [0, 0, 0];
  const stretches = smoothStretches(curve);
  stretches.forEach((stretch, n) => {
    const { positions, tangents, distances } = sampleStretch(curve, stretch, SAMPLES_PER_SEGMENT);
    const count = distances.length;
    const stretchPlaces = Array.from({ length: count }, (_, i): Side => {
      const place = triple(positions, i);
      const tangent = triple(tangents as Float64Array, i);
      const hair = 1e-9 * (stretch[1] - stretch[0]);
      curve.curvatureVector(Math.min(stretch[1] - hair, Math.max(stretch[0] + hair, distances[i])), bend);
      return { ...besidePlace(place, tangent, bend, side), distance: distances[i], breaks: false };
    });
    if (n > 0) joint(result, stretchPlaces[0], side);
    result.push(...stretchPlaces);
  });
  if (curve.closed && joint(result, result[0], side)) result.push(result[0]);
  return result;
}

const triple = (values: Float64Array, i: number): Vec3 => [
  values[3 * i],
  values[3 * i + 1],
  values[3 * i + 2],
];

/** The offset of one place: l = Y × t made level, and its change with the bend of the path. */
function besidePlace(
  place: Vec3,
  t: Vec3,
  bend: Vec3,
  side: number,
): Pick<Side, 'position' | 'tangent' | 'back'> {
  const flat = Math.max(1e-9, Math.hypot(t[0], t[2]));
  const left: Vec3 = [t[2] / flat, 0, -t[0] / flat];
  const turn = (t[0] * bend[0] + t[2] * bend[2]) / flat ** 3;
  const moved: Vec3 = [
    t[0] + side * (bend[2] / flat - t[2] * turn),
    t[1],
    t[2] + side * (-bend[0] / flat + t[0] * turn),
  ];
  const back = moved[0] * t[0] + moved[2] * t[2] < 0;
  const size = Math.hypot(...moved);
  const tangent: Vec3 = size > 1e-9 ? [moved[0] / size, moved[1] / size, moved[2] / size] : t;
  return { position: [place[0] + side * left[0], place[1], place[2] + side * left[2]], tangent, back };
}

/**
 * Joins two stretches at a kink: a round joint outside; inside a break, which the trimming mends. False where
 * there is no kink to join at.
 */
function joint(result: Side[], next: Side, side: number): boolean {
  const last = result[result.length - 1];
  const [a, b] = [last.tangent, next.tangent];
  const turn = Math.atan2(a[2] * b[0] - a[0] * b[2], a[0] * b[0] + a[2] * b[2]);
  if (Math.abs(turn) < 1e-9 || last.back || next.back) return false;
  if (turn * side > 0) {
    // To the inner side: straight across, against the direction of travel.
    result[result.length - 1] = { ...last, breaks: true };
    result.push({ ...last, back: true, breaks: false });
    return true;
  }
  const steps = Math.max(2, Math.ceil(Math.abs(turn) / JOINT_STEP));
  const heading = Math.atan2(a[0], a[2]);
  const beside = (angle: number): Vec3 => [side * Math.cos(angle), 0, -side * Math.sin(angle)];
  const out = beside(heading);
  for (let i = 1; i < steps; i++) {
    const angle = heading + (turn * i) / steps;
    const now = beside(angle);
    const position = last.position.map((value, k) => value - out[k] + now[k]) as Vec3;
    const tangent: Vec3 = [Math.sin(angle), 0, Math.cos(angle)];
    result.push({ position, tangent, back: false, distance: last.distance, breaks: false });
  }
  return true;
}

/** Cuts off the loops around stretches that run backward. */
function trimLoops(places: readonly Side[], closed: boolean, name: string): Side[] {
  let list = closed ? beginForward(places) : [...places];
  for (let a = list.findIndex(({ back }) => back); a >= 0; a = list.findIndex(({ back }) => back)) {
    let b = a;
    while (b + 1 < list.length && list[b + 1].back) b++;
    const crossing = findCrossing(list, a, b);
    if (crossing !== null) list = cutAt(list, crossing);
    else if (!closed && a === 0) list = list.slice(b + 1);
    else if (!closed && b === list.length - 1) list = list.slice(0, a);
    else list = [];
    if (list.length < 2) {
      throw new PathError(
        `Path "${name}" bends tighter than the offset is wide: nothing of it is left. Expected a smaller offset.`,
      );
    }
  }
  return list;
}

/** The places of a closed curve from the middle of the longest run that goes forward. */
function beginForward(places: readonly Side[]): Side[] {
  const ring = places.slice(0, -1);
  const n = ring.length;
  let best = { start: 0, length: 0 };
  let length = 0;
  for (let i = 0; i < 2 * n; i++) {
    length = ring[i % n].back ? 0 : Math.min(n, length + 1);
    if (length > best.length) best = { start: i - length + 1, length };
  }
  if (best.length === n) return [...places];
  const from = (best.start + (best.length >> 1)) % n;
  return [...ring.slice(from), ...ring.slice(0, from), ring[from]];
}

interface Crossing {
  /** The crossing lies between places i and i + 1, and between j and j + 1. */
  readonly i: number;
  readonly j: number;
  readonly place: Vec3;
}

/** The crossing, seen from above, that closes the smallest loop around the places a … b. */
function findCrossing(list: readonly Side[], a: number, b: number): Crossing | null {
  const most = list.length;
  for (let reach = 0; reach < most; reach++) {
    // Only pieces that go forward from end to end.
    const low = a - 2 - reach;
    const high = b + 1 + reach;
    if (low < 0 && high + 1 >= list.length) return null;
    for (let k = 0; k <= reach; k++) {
      const found = crossed(list, low, b + 1 + k) ?? crossed(list, a - 2 - k, high);
      if (found !== null) return found;
    }
  }
  return null;
}

function crossed(list: readonly Side[], i: number, j: number): Crossing | null {
  if (i < 0 || j + 1 >= list.length || j <= i + 1) return null;
  const [p, p2, q, q2] = [list[i].position, list[i + 1].position, list[j].position, list[j + 1].position];
  const [rx, rz, sx, sz] = [p2[0] - p[0], p2[2] - p[2], q2[0] - q[0], q2[2] - q[2]];
  const cross = rx * sz - rz * sx;
  if (cross === 0) return null;
  const t = ((q[0] - p[0]) * sz - (q[2] - p[2]) * sx) / cross;
  const u = ((q[0] - p[0]) * rz - (q[2] - p[2]) * rx) / cross;
  if (t < 0 || t > 1 || u < 0 || u > 1) return null;
  const height = (p[1] + t * (p2[1] - p[1]) + q[1] + u * (q2[1] - q[1])) / 2;
  return { i, j, place: [p[0] + t * rx, height, p[2] + t * rz] };
}

function cutAt(list: readonly Side[], { i, j, place: position }: Crossing): Side[] {
  const before = list[i];
  const after = list[j + 1];
  const end: Side = { ...before, position, breaks: true, back: false };
  const start: Side = { ...after, position, breaks: false, back: false };
  return [...list.slice(0, i + 1), end, start, ...list.slice(j + 1)];
}

/** The smooth runs of the places: after a break the next run begins at the same place. */
function runsOf(places: readonly Side[]): Side[][] {
  const runs: Side[][] = [[]];
  for (const place of places) {
    const run = runs[runs.length - 1];
    const before = run[run.length - 1];
    if (before && distance3(before.position, place.position) < 1e-12) continue;
    run.push(place);
    if (place.breaks) runs.push([]);
  }
  return runs.filter((run) => run.length > 1);
}
