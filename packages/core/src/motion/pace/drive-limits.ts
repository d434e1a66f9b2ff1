import { modulo } from '../../geometry/math/angle.js';
import { lowerBound } from '../../geometry/math/search.js';
import type { Drive } from '../../document/shot-pace.js';
import { CORNER, cornersOf, type BentTrack } from '../../geometry/path/corners.js';

/** A track in cells: rising distances, and at each the square of the most speed there, stops left out. */
export interface LimitGrid {
  readonly distances: Float64Array;
  /** m²/s². */
  readonly squares: Float64Array;
  /** By place the seconds of a stop there; 0 for none. */
  readonly stops: ReadonlyMap<number, number>;
}

/** Grid cells are no longer, metres. */
const CELL = 0.1;
/** Least number of cells, for short tracks. */
const LEAST_CELLS = 100;
/** Most cells; those of longer tracks are longer: 10 km in full. */
const MOST_CELLS = 100_000;
/** Most cells, including those cut for bends. */
const MOST_PLACES = 4 * MOST_CELLS;
/** So much of the grip is left for what a bend does between two places. */
const GRIP = 1 - 3e-4;
/** A cell is halved where the square of the speed allowed in its middle is off by more, as a part of it. */
const EVEN = 5e-4;
const MOST_HALVINGS = 12;
/** Metres. */
const WIDEST = 250;
/** Metres. */
const TIGHT = 6;
/** Largest length of a cell, as a part of its radius. */
const SLICES = 8;
/** Places nearer to each other are one, as a part of the length. */
const SAME = 1e-12;
/** A limit never asks for less, m/s: a point in the curve is passed at a crawl. */
const CRAWL = 1e-3;

/** The shape of a lap or of an open track, which no limit changes: grid and curvature at each place. */
interface BendGrid {
  readonly places: Float64Array;
  /** Size of the curvature, 1/m. */
  readonly bends: Float64Array;
}

const cached = new WeakMap<BentTrack, BendGrid>();

/** Whether a track is so long that a drive looks at it further apart than it would. */
export const isCoarseDrive = (length: number): boolean => driveCell(length) > CELL;

/** How far apart a drive looks at what a track asks for, metres; closer where it bends. */
export function driveCell(length: number): number {
  return Math.max(Math.min(CELL, length / LEAST_CELLS), length / MOST_CELLS);
}

/**
 * The most speed along a track: top speed, zones, and v² |κ| ≤ sideways. A joint, a stop and a zone's edge are
 * places of the grid, so that nothing changes within a cell but gently.
 */
export function limitGrid(track: BentTrack, drive: Drive): LimitGrid {
  const base = cached.get(track) ?? bendGrid(track);
  cached.set(track, base);
  const onTrack = (s: number) => (track.closed ? modulo(s, track.length) : s);
  const asked = [
    ...drive.stops.map(({ distance }) => distance),
    ...drive.zones.flatMap(({ from, to }) => [from, to]),
  ];
  const one = unified([0, track.length, ...asked.map(onTrack)], track.length * SAME);
  const wrap = (s: number) => one.get(onTrack(s)) ?? onTrack(s);
  const stops = new Map<number, number>();
  for (const { distance, seconds } of drive.stops) {
    const place = wrap(distance);
    if (place >= 0 && place <= track.length) stops.set(place, (stops.get(place) ?? 0) + seconds);
  }
  const zones = drive.zones.flatMap(({ from, to, speed }) => {
    if (!track.closed) return [{ low: wrap(Math.min(from, to)), high: wrap(Math.max(from, to)), speed }];
    if (to - from >= track.length) return [{ low: 0, high: track.length, speed }];
    const [low, high] = [wrap(from), wrap(to)];
    if (low <= high) return [{ low, high, speed }];
    return [
      { low, high: track.length, speed },
      { low: 0, high, speed },
    ];
  });
  const edges = [...stops.keys(), ...zones.flatMap(({ low, high }) => [low, high])];
  const { places: distances, bends } = withPlaces(track, base, edges);
  const squares = new Float64Array(distances.length);
  for (let i = 0; i < distances.length; i++) {
    squares[i] = Math.max(CRAWL ** 2, Math.min(drive.top ** 2, (GRIP * drive.sideways) / bends[i]));
  }
  for (const { low, high, speed } of zones) {
    for (let i = lowerBound(distances, low); i < distances.length && distances[i] <= high; i++) {
      squares[i] = Math.min(squares[i], speed ** 2);
    }
  }
  return { distances, squares, stops };
}

function bendGrid(track: BentTrack): BendGrid {
  const { length } = track;
  const hair = length * 1e-9;
  const cell = driveCell(length);
  const corners = cornersOf(track);
  const edges = corners.flatMap(({ at }) => [at - CORNER / 2, at + CORNER / 2]);
  const inside = edges.filter((s) => s > 0 && s < length);
  const borders = rising([0, ...track.joints, ...inside, length]);
  const places: number[] = [0];
  // A curve that halts at a joint has no bend right there.
  const bendAfter = (s: number) => bendAt(track, s) || bendAt(track, s + hair);
  const bends: number[] = [bendAfter(0)];
  /** Puts a place after the last one, and between the two what the bends there ask for. */
  const put = (to: number, bend: number, depth: number) => {
    const [from, before] = [places[places.length - 1], bends[bends.length - 1]];
    if (depth < MOST_HALVINGS && places.length < MOST_PLACES && maySwerve(before, bend)) {
      const middle = (from + to) / 2;
      const between = bendAt(track, middle);
      const wide = (to - from) * SLICES > Math.min(radius(before), radius(bend));
      if (wide || swerves(before, between, bend)) {
        put(middle, between, depth + 1);
        put(to, bend, depth + 1);
        return;
      }
    }
    places.push(to);
    bends.push(bend);
  };
  for (let i = 1; i < borders.length; i++) {
    const [from, to] = [borders[i - 1], borders[i]];
    const cells = Math.max(1, Math.ceil((to - from) / cell - 1e-9));
    for (let k = 1; k <= cells; k++) {
      const place = k === cells ? to : from + ((to - from) * k) / cells;
      // A joint is seen from the side it ends here; what follows begins with its own.
      put(place, bendAt(track, k === cells ? to - hair : place), 0);
      if (k === cells) bends[bends.length - 1] = Math.max(bends[bends.length - 1], bendAfter(to));
    }
  }
  const grid = { places: Float64Array.from(places), bends: Float64Array.from(bends) };
  for (const { at, turn } of corners) {
    for (const lap of track.closed ? [-length, 0, length] : [0]) {
      const from = lowerBound(grid.places, at + lap - CORNER / 2 - hair);
      for (let i = from; i < places.length && places[i] <= at + lap + CORNER / 2 + hair; i++) {
        grid.bends[i] += Math.abs(turn) / CORNER;
      }
    }
  }
  if (track.closed)
    grid.bends[0] = grid.bends[places.length - 1] = Math.max(grid.bends[0], grid.bends[places.length - 1]);
  return grid;
}

const bendAt = (track: BentTrack, s: number) => Math.abs(track.curvature(s));

/** A radius as it counts: bends wider than this are straight. */
const radius = (bend: number) => Math.min(WIDEST, 1 / bend);

/** Whether a cell is worth a look at its middle. */
function maySwerve(a: number, b: number): boolean {
  const [r, q] = [radius(a), radius(b)];
  return Math.min(r, q) < TIGHT || Math.abs(r - q) > 0.01 * Math.min(r, q);
}

/** Whether the speed that is allowed half-way is not half-way between those at the ends (in its square). */
function swerves(a: number, middle: number, b: number): boolean {
  return Math.abs(radius(middle) / ((radius(a) + radius(b)) / 2) - 1) > EVEN;
}

/** The grid with some places more. */
function withPlaces(track: BentTrack, grid: BendGrid, extra: readonly number[]): BendGrid {
  const wanted = rising(extra.filter((s) => s >= 0 && s <= track.length));
  if (wanted.length === 0) return grid;
  const places = new Float64Array(grid.places.length + wanted.length);
  const bends = new Float64Array(places.length);
  const hair = track.length * SAME;
  let count = 0;
  const put = (s: number, bend: number) => {
    places[count] = s;
    bends[count++] = bend;
  };
  let k = 0;
  for (let i = 0; i < grid.places.length; i++) {
    const s = grid.places[i];
    for (; k < wanted.length && wanted[k] < s; k++) {
      // Within a corner, whose turn is spread over its grid, it bends as its neighbours do.
      put(wanted[k], Math.max(Math.min(bends[count - 1], grid.bends[i]), bendAt(track, wanted[k])));
    }
    // One of the grid that is all but there gives way to it.
    if (k < wanted.length && wanted[k] - s <= hair) put(wanted[k++], grid.bends[i]);
    else if (s - places[count - 1] > hair || count === 0) put(s, grid.bends[i]);
  }
  return { places: places.subarray(0, count), bends: bends.subarray(0, count) };
}

/** Merged distances: those equal within rounding are one. */
function unified(places: readonly number[], hair: number): Map<number, number> {
  const one = new Map<number, number>();
  // The ends come first, so that what is all but there is there.
  const [start, end] = places;
  let last = -Infinity;
  for (const s of rising(places)) {
    if (!(s - last <= hair)) last = s;
    one.set(s, Math.abs(s - end) <= hair ? end : Math.abs(s - start) <= hair ? start : last);
  }
  return one;
}

const rising = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);
