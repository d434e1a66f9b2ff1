import { guardedNewton } from '../math/search.js';
import { vec3 } from 'gl-matrix';
import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';

/** Distance along one path for a distance along another: never falling, with ends mapped to ends. */
export type DistanceMap = (s: number) => number;

/** Places of the old path that are matched, and of the new one for each of those. */
const FEWEST = 64;
const MOST = 320;
const PER_SEGMENT = 8;
const FINER = 3;
/** How near a place is found, as a part of the path's length. */
const EXACT = 1e-12;

export interface MatchBy {
  /** Position on the new path at which a point of the old one is searched, for a path that was moved as a whole. */
  readonly moved?: (place: Vec3) => Vec3;
  /** Whether heights are left out, for one that was only lifted. */
  readonly plan?: boolean;
}

/**
 * Matches the places of a path that was changed with those it had: to each the nearest on the new curve, in order, the start to the start
 * and the end to the end. Of all such matches between samples it is the one with the least sum of squared distances (dynamic
 * programming, as in dynamic time warping; Sakoe and Chiba 1978); between those the nearest place is found exactly. Laps, and what
 * lies beyond the ends of an open path, go on as they did.
 *
 */
export function matchPaths(
  from: CompiledPath,
  to: CompiledPath,
  { moved = (place) => place, plan = false }: MatchBy = {},
): DistanceMap {
  const count = Math.min(MOST, Math.max(FEWEST, PER_SEGMENT * from.segments.count));
  const fine = Math.min(
    FINER * MOST,
    Math.max(FINER * count, PER_SEGMENT * Math.min(MOST, to.segments.count)),
  );
  const matched = leastMatch(
    places(from, count, moved, plan),
    places(to, fine, (place) => place, plan),
  );
  const step = to.length / fine;
  const here: Vec3 = [0, 0, 0];
  const there: Vec3 = [0, 0, 0];
  const way: Vec3 = [0, 0, 0];
  /** By how much a distance along the new path lies past the foot of the perpendicular from the wanted place. */
  const past = (s: number, wanted: Vec3): number => {
    to.position(s, there);
    to.tangent(s, way);
    vec3.subtract(there, there, wanted);
    if (plan) there[1] = 0;
    return vec3.dot(there, way);
  };
  const within = (s: number): number => {
    const place = (s / from.length) * count;
    const i = Math.min(count - 1, Math.max(0, Math.floor(place)));
    // In order: no further back or on than its matched neighbours.
    const low = Math.max(0, Math.min(to.length, (matched[i] - 1) * step));
    const high = Math.max(0, Math.min(to.length * (1 - 1e-15), (matched[i + 1] + 1) * step));
    const guess = (matched[i] + (place - i) * (matched[i + 1] - matched[i])) * step;
    from.position(s, here);
    const wanted = moved(here);
    if (past(low, wanted) >= 0) return low;
    if (past(high, wanted) <= 0) return high;
    return guardedNewton(
      (x, out) => {
        out[0] = past(x, wanted);
        out[1] = 1;
      },
      low,
      high,
      Math.min(high, Math.max(low, guess)),
      EXACT * to.length,
    );
  };
  const { length } = from;
  const ends = length * 1e-12;
  return (s) => {
    if (from.closed) {
      const lap = Math.floor(s / length + 1e-12);
      const rest = s - lap * length;
      // A path that was opened has one lap.
      return lap * to.length + (rest < ends ? 0 : within(rest));
    }
    if (s <= ends) return s < 0 ? s : 0;
    if (s >= length - ends) return to.length + Math.max(0, s - length);
    return within(s);
  };
}

function places(
  path: CompiledPath,
  count: number,
  moved: (place: Vec3) => Vec3,
  plan: boolean,
): Float64Array {
  const out = new Float64Array(3 * (count + 1));
  const here: Vec3 = [0, 0, 0];
  for (let i = 0; i <= count; i++) {
    path.position(i === count ? path.length * (1 - 1e-15) : (path.length * i) / count, here);
    out.set(moved(here), 3 * i);
    if (plan) out[3 * i + 1] = 0;
  }
  return out;
}

/** For each place of one list which of the other it is matched to: rising, first to first and last to last. */
function leastMatch(a: Float64Array, b: Float64Array): Float64Array {
  const n = a.length / 3;
  const m = b.length / 3;
  /** By place of a and of b the best predecessor among those of b. */
  const before = new Int32Array(n * m);
  let costs = new Float64Array(m).fill(Infinity);
  costs[0] = 0;
  let next = new Float64Array(m);
  for (let i = 1; i < n; i++) {
    let best = Infinity;
    let from = 0;
    for (let j = 0; j < m; j++) {
      if (costs[j] < best) {
        best = costs[j];
        from = j;
      }
      const dx = a[3 * i] - b[3 * j];
      const dy = a[3 * i + 1] - b[3 * j + 1];
      const dz = a[3 * i + 2] - b[3 * j + 2];
      next[j] = best + dx * dx + dy * dy + dz * dz;
      before[i * m + j] = from;
    }
    [costs, next] = [next, costs];
  }
  const match = new Float64Array(n);
  let at = m - 1;
  for (let i = n - 1; i >= 0; i--) {
    match[i] = at;
    at = before[i * m + at];
  }
  return match;
}
