import { vec3 } from 'gl-matrix';
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
  const { count, positions } = coarseOf(path);
  const [x, y, z] = point;
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < count; i++) {
    const dx = positions[3 * i] - x;
    const dy = positions[3 * i + 1] - y;
    const dz = positions[3 * i + 2] - z;
    const value = dx * dx + dy * dy + dz * dz;
    if (value < least) {
      least = value;
      best = i;
    }
  }
  return narrowed(path, best, (place) => vec3.squaredDistance(place, point));
}

/**
 * The place of a path nearest to a ray, as from the eye through the pointer.
 *
 * @param direction of any length above 0; what lies behind the origin counts by its distance to the origin
 */
export function nearestToRay(path: CompiledPath, origin: Vec3, direction: Vec3): NearestPoint {
  const unit = vec3.normalize([0, 0, 0], direction);
  const to: Vec3 = [0, 0, 0];
  const squared = (place: Vec3): number => {
    vec3.subtract(to, place, origin);
    const along = Math.max(0, vec3.dot(to, unit));
    return Math.max(0, vec3.squaredLength(to) - 2 * along * vec3.dot(to, unit) + along * along);
  };
  const { count, positions } = coarseOf(path);
  const here: Vec3 = [0, 0, 0];
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < count; i++) {
    vec3.set(here, positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
    const value = squared(here);
    if (value < least) {
      least = value;
      best = i;
    }
  }
  return narrowed(path, best, squared);
}

/** The nearest place around the best of the even ones, by golden section. */
function narrowed(path: CompiledPath, best: number, squared: (place: Vec3) => number): NearestPoint {
  const { step } = coarseOf(path);
  const here: Vec3 = [0, 0, 0];
  const at = (s: number): number => {
    path.position(s, here);
    return squared(here);
  };
  const low = path.closed ? (best - 1) * step : Math.max(0, (best - 1) * step);
  const high = path.closed ? (best + 1) * step : Math.min(path.length, (best + 1) * step);
  const found = goldenSection(at, low, high);
  // The ends of an open path are only come near to.
  const distance = at(best * step) < at(found) ? best * step : found;
  return { distance: path.wrap(distance), gap: Math.sqrt(at(distance)) };
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Where a function with one valley between a and b is least. */
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
