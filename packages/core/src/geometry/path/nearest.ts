import { vec3 } from 'gl-matrix';
import { lowerBound } from '../math/search.js';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';

/** The place of a path nearest to something, and how far away it is. */
export interface NearestPoint {
  /** Metres along the path, 0 … length. */
  readonly distance: number;
  /** Metres between the two. */
  readonly gap: number;
}

/** Coarse places of a path, at even distances. */
interface Coarse {
  readonly step: number;
  readonly count: number;
  readonly positions: Float64Array;
}

const SAMPLES_PER_SEGMENT = 8;
const FEWEST = 64;
const MOST = 40_000;
const coarsePlaces = new WeakMap<CompiledPath, Coarse>();

/** The place of a path nearest to a point. */
export function nearestToPoint(path: CompiledPath, point: Vec3): NearestPoint {
  return nearest(path, (place) => vec3.squaredDistance(place, point));
}

/**
 * The place of a path nearest to a ray, as from the eye through the pointer.
 *
 * @param direction of any length above 0; what lies behind the origin counts by its distance to the origin
 */
export function nearestToRay(path: CompiledPath, origin: Vec3, direction: Vec3): NearestPoint {
  const unit = vec3.normalize([0, 0, 0], direction);
  const to: Vec3 = [0, 0, 0];
  return nearest(path, (place) => {
    vec3.subtract(to, place, origin);
    const along = Math.max(0, vec3.dot(to, unit));
    return Math.max(0, vec3.squaredLength(to) - 2 * along * vec3.dot(to, unit) + along * along);
  });
}

/** Number of samples, nearly as near as the nearest, that are refined: a path rarely passes more often. */
const MOST_PASSES = 6;

/**
 * The nearest place by golden section around the nearest even ones. Where a path comes back on itself, as at a sharp corner, the
 * nearest even place need not be beside the nearest of all, so others that are hardly further are looked around too.
 *
 * @param squared of how far a place is; it changes by no more than the place does
 */
function nearest(path: CompiledPath, squared: (place: Vec3) => number): NearestPoint {
  const { count, positions, step } = coarseOf(path);
  const here: Vec3 = [0, 0, 0];
  const far = new Float64Array(count);
  let least = Infinity;
  for (let i = 0; i < count; i++) {
    vec3.set(here, positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
    far[i] = squared(here);
    if (far[i] < least) least = far[i];
  }
  // Between even places it is never nearer than half a step less.
  const reach = (Math.sqrt(least) + step / 2) ** 2;
  const valleys: number[] = [];
  for (let i = 0; i < count; i++)
    if (far[i] <= reach && !(far[i - 1] < far[i]) && !(far[i + 1] < far[i])) valleys.push(i);
  valleys.sort((a, b) => far[a] - far[b]);
  const at = (s: number): number => {
    path.position(s, here);
    return squared(here);
  };
  let [best, value] = [0, Infinity];
  const take = (s: number): void => {
    const own = at(s);
    if (own < value) [best, value] = [s, own];
  };
  for (const i of valleys.slice(0, MOST_PASSES)) {
    const middle = i * step;
    if (!bendsSharply(path, i)) {
      take(middle);
      take(goldenSection(at, middle - step, middle + step));
      continue;
    }
    // At a sharp turn the nearest even sample may be on the other side of the bend.
    const even = [-2, -1, 0, 1, 2].map((k) => middle + k * step);
    const within = path.closed ? even : even.map((s) => Math.min(path.length, Math.max(0, s)));
    // The ends of an open path, and corners, are only come near to.
    const borders = [...within, ...jointsBetween(path, within[0], within[4])].sort((a, b) => a - b);
    borders.forEach(take);
    for (let k = 1; k < borders.length; k++) {
      const [from, to] = [borders[k - 1], borders[k]];
      // A stretch comes no nearer than its ends by more than it is long.
      const hope = (Math.sqrt(at(from)) + Math.sqrt(at(to)) - (to - from)) / 2;
      if (to > from && (hope <= 0 || hope ** 2 < value)) take(goldenSection(at, from, to));
    }
  }
  return { distance: path.wrap(best), gap: Math.sqrt(value) };
}

/** Whether a path turns by so much around an even place that looking to both sides of it is not enough; ends of open ones count as that. */
function bendsSharply(path: CompiledPath, i: number): boolean {
  const { count, positions, step } = coarseOf(path);
  let [before, after] = [i - 2, i + 2];
  if (path.closed) [before, after] = [(before + count - 1) % (count - 1), after % (count - 1)];
  else if (before < 0 || after >= count) return true;
  const [a, b] = [3 * before, 3 * after];
  const chord = Math.hypot(
    positions[a] - positions[b],
    positions[a + 1] - positions[b + 1],
    positions[a + 2] - positions[b + 2],
  );
  return chord < STRAIGHT * 4 * step;
}

/** A stretch whose ends are apart by this part of its length turns by less than a right angle or so. */
const STRAIGHT = 0.9;

/** Joints within a stretch, at which it can turn sharply; few, as there are several even samples a segment. */
function jointsBetween({ joints, length }: CompiledPath, low: number, high: number): number[] {
  const found: number[] = [];
  for (let i = lowerBound(joints, low); i < joints.length && joints[i] < high; i++) found.push(joints[i]);
  // Round a closed path the end is the beginning.
  if (low < 0) found.push(0);
  if (high > length) found.push(length);
  return found.slice(0, MOST_JOINTS);
}

const MOST_JOINTS = 8;

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Minimum of a function with one valley between a and b. */
function goldenSection(f: (x: number) => number, a: number, b: number): number {
  let x1 = b - GOLDEN * (b - a);
  let x2 = a + GOLDEN * (b - a);
  let f1 = f(x1);
  let f2 = f(x2);
  for (let step = 0; step < 40; step++) {
    if (f1 <= f2) {
      b = x2;
      x2 = x1;
      f2 = f1;
      x1 = b - GOLDEN * (b - a);
      f1 = f(x1);
    } else {
      a = x1;
      x1 = x2;
      f1 = f2;
      x2 = a + GOLDEN * (b - a);
      f2 = f(x2);
    }
  }
  return (a + b) / 2;
}

function coarseOf(path: CompiledPath): Coarse {
  const cached = coarsePlaces.get(path);
  if (cached) return cached;
  const count = Math.min(MOST, Math.max(FEWEST, SAMPLES_PER_SEGMENT * path.segments.count)) + 1;
  const step = path.length / (count - 1);
  const positions = new Float64Array(3 * count);
  const here: Vec3 = [0, 0, 0];
  for (let i = 0; i < count; i++) {
    path.position(Math.min(path.length * (1 - 1e-15), i * step), here);
    positions.set(here, 3 * i);
  }
  const built = { step, count, positions };
  coarsePlaces.set(path, built);
  return built;
}
