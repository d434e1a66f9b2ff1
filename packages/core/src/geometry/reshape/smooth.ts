import { distance3, type Vec3 } from '../math/vec.js';
import type { ShotPath } from '../../document/shot-path.js';
import { activePoints } from '../path/active-points.js';
import { handleEnd } from '../path/basis-bezier.js';
import { toLocal } from '../path/placement.js';

/**
 * The path with its points moved to smooth their bends, as little as possible: the minimum of Σ |moved|² + λ Σ
 * |change of direction|², with changes of direction by divided differences over the chords. The ends of an open path
 * stay. Bézier handles approach those that follow from the neighbours, by the same strength.
 *
 * @param strength 0 leaves the path as it is, 1 is as fair as its points allow
 */
export function smoothPath(path: ShotPath, strength: number): ShotPath {
  const points = activePoints(path);
  const n = points.length;
  if (strength <= 0 || n < 3) return path;
  const { closed } = path;
  const stiffness = Math.pow(10, 6 * Math.min(1, strength)) - 1;
  const rows = bendRows(
    points.map(({ position }) => position),
    closed,
  );
  const fixed = (i: number) => !closed && (i === 0 || i === n - 1);
  const moved = [0, 1, 2].map((k) => {
    const from = Float64Array.from(points, ({ position }) => position[k]);
    return fairest(from, rows, stiffness * 1e-3, fixed);
  });
  const fairPoints = points.map((point, i) => {
    const position: Vec3 = [moved[0][i], moved[1][i], moved[2][i]];
    return { ...point, position, source: { ...point.source, handles: 'auto' as const } };
  });
  let next = 0;
  return {
    ...path,
    points: path.points.map((point) => {
      if (point.off) return point;
      const i = next++;
      const position = toLocal(path.transform, fairPoints[i].position);
      if (path.basis !== 'bezier' || point.handles === 'auto') return { ...point, position };
      const handle = (side: 1 | -1, own: Vec3): Vec3 => {
        const end = toLocal(path.transform, handleEnd(fairPoints, i, closed, side));
        return own.map((value, k) => value + strength * (end[k] - position[k] - value)) as Vec3;
      };
      const handles = point.handles === 'corner' ? ('corner' as const) : ('smooth' as const);
      return { ...point, position, in: handle(-1, point.in), out: handle(1, point.out), handles };
    }),
  };
}

/**
 * Least length of a chord, in mean ones: two points brought close together by errors would else act as one stiff
 * stick, which no smoothing turns.
 */
const SHORTEST = 0.5;

/** The second divided difference at a point: which points, and their weights. */
interface BendRow {
  readonly index: readonly [number, number, number];
  readonly weight: readonly [number, number, number];
}

function bendRows(places: readonly Vec3[], closed: boolean): BendRow[] {
  const n = places.length;
  const rows: BendRow[] = [];
  const chords = places.map((place, i) => distance3(place, places[(i + 1) % n]));
  const count = closed ? n : n - 1;
  const mean = chords.slice(0, count).reduce((sum, chord) => sum + chord, 0) / count || 1;
  for (let i = closed ? 0 : 1; i < (closed ? n : n - 1); i++) {
    // Measured in mean chords, so that the strength means the same on a toy and on a motorway.
    const before = Math.max(SHORTEST, chords[(i + n - 1) % n] / mean);
    const after = Math.max(SHORTEST, chords[i] / mean);
    const a = 2 / (before * (before + after));
    const c = 2 / (after * (before + after));
    rows.push({ index: [(i + n - 1) % n, i, (i + 1) % n], weight: [a, -a - c, c] });
  }
  return rows;
}

/** Solves (1 + λ DᵀD) x = from with some values held, by conjugate gradients. */
function fairest(
  from: Float64Array,
  rows: readonly BendRow[],
  stiffness: number,
  fixed: (i: number) => boolean,
): Float64Array {
  const n = from.length;
  const apply = (x: Float64Array): Float64Array => {
    const out = Float64Array.from(x);
    for (const { index, weight } of rows) {
      const bend = weight[0] * x[index[0]] + weight[1] * x[index[1]] + weight[2] * x[index[2]];
      for (let k = 0; k < 3; k++) out[index[k]] += stiffness * weight[k] * bend;
    }
    return out;
  };
  const free = (x: Float64Array) => x.map((value, i) => (fixed(i) ? 0 : value));
  const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, value, i) => sum + value * b[i], 0);
  const x = Float64Array.from(from);
  let rest = free(apply(x).map((value, i) => from[i] - value));
  let direction = Float64Array.from(rest);
  let square = dot(rest, rest);
  const enough = square * 1e-24;
  for (let step = 0; step < 4 * n + 200 && square > enough; step++) {
    const through = free(apply(direction));
    const along = square / dot(direction, through);
    for (let i = 0; i < n; i++) x[i] += along * direction[i];
    rest = rest.map((value, i) => value - along * through[i]);
    const next = dot(rest, rest);
    direction = direction.map((value, i) => rest[i] + (next / square) * value);
    square = next;
  }
  return x;
}
