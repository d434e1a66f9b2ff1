import type { Drive } from '../../document/shot-pace.js';
import type { BentTrack } from '../../geometry/path/corners.js';
import { limitGrid, type LimitGrid } from './drive-limits.js';
import { lowerBound } from '../../geometry/math/search.js';
import { Run } from './run.js';

/**
 * The fastest run under the limits, its acceleration as abrupt as it comes: what goes before laps, and a lap
 * that is run again and again where the track is closed.
 */
export interface FastestRun {
  readonly lead: Run;
  /** Null on an open track, whose lead is all of it. */
  readonly lap: Run | null;
  /** End of the lead: at rest, or running on. */
  readonly rolls: { readonly in: boolean; readonly out: boolean };
}

/** A rider that starts from rest needs no more laps than these to come up to the speed of those that follow. */
const MOST_LEAD_LAPS = 50;

/**
 * v² is raised from place to place by no more than 2 a h and lowered by no more than 2 b h: a pass forward and a
 * pass backward over the limits give the fastest run (Bobrow, Dubowsky, Gibson 1985).
 *
 * @param start    metres along the track
 * @param window   seconds over which it will be averaged to soften it: stops are longer by that, and a limit
 *                 holds around itself as far as one comes in half of it
 */
export function fastestRun(track: BentTrack, drive: Drive, start: number, window: number): FastestRun {
  const grid = spreadGrid(track, drive, window);
  return (track.closed ? lapRun : openRun)(track, drive, start, grid, window);
}

const grids = new WeakMap<BentTrack, { readonly key: string; readonly grid: LimitGrid }>();

/** The limits along a track, each around its place too; those of the drive before are kept, since riders that start elsewhere share them. */
function spreadGrid(track: BentTrack, drive: Drive, window: number): LimitGrid {
  const key = JSON.stringify({ ...drive, departs: null, arrives: null, way: null });
  const cached = grids.get(track);
  if (cached?.key === key) return cached.grid;
  const plain = limitGrid(track, drive);
  const grid = window > 0 ? { ...plain, squares: spreadLimits(plain, track, drive, window) } : plain;
  grids.set(track, { key, grid });
  return grid;
}

/**
 * Each limit also around its place: as far as one comes at it in half the window, and as the place itself strays,
 * and on to the next place, so that the cell in which that ends does not rise yet.
 */
function spreadLimits(grid: LimitGrid, track: BentTrack, drive: Drive, window: number): Float64Array {
  const spread = Float64Array.from(grid.squares);
  const stray = (Math.max(drive.accelerate, drive.brake) * window ** 2) / 24;
  spreadOneWay(grid, track, spread, window / 2, stray, 1);
  spreadOneWay(grid, track, spread, window / 2, stray, -1);
  return spread;
}

/**
 * A limit spreads only to distances with higher ones. The lowest go first and each distance takes the first that
 * reaches it, so that each is visited once, however jagged the limits are.
 */
function spreadOneWay(
  { distances, squares }: LimitGrid,
  { closed, length }: BentTrack,
  spread: Float64Array,
  seconds: number,
  stray: number,
  step: 1 | -1,
): void {
  const cells = distances.length - 1;
  const first = step > 0 ? 0 : cells;
  // Round a closed track the walk begins a lap earlier, so that what spreads over its first point is seen.
  const from = closed ? -cells : 0;
  const index = (n: number) => first + step * (n < 0 ? n + cells : n);
  const place = (n: number) => step * distances[index(n)] - (n < 0 ? length : 0);
  const rising: number[] = [];
  for (let n = from; n < cells; n++) {
    if (squares[index(n) + step] > squares[index(n)]) rising.push(n);
  }
  rising.sort((a, b) => squares[index(a)] - squares[index(b)]);
  const taken = new FreePlaces(cells - from + 1);
  for (const n of rising) {
    const square = squares[index(n)];
    const end = place(n) + Math.sqrt(square) * seconds + stray;
    for (let k = taken.free(n + 1 - from) + from; k <= cells; k = taken.free(k - from) + from) {
      // A place counts where the one before it is within reach.
      if (k > n + 1 && place(k - 1) > end) break;
      if (k >= 0 && square < spread[index(k)]) spread[index(k)] = square;
      taken.take(k - from);
    }
  }
}

/** Free slots among many, found in nearly constant time: taken ones point on, along ever shorter chains (union-find). */
class FreePlaces {
  private readonly next: Int32Array;

  constructor(count: number) {
    this.next = Int32Array.from({ length: count + 1 }, (_, i) => i);
  }

  /** The first free one from this on; their number where there is none. */
  free(i: number): number {
    while (this.next[i] !== i) {
      this.next[i] = this.next[this.next[i]];
      i = this.next[i];
    }
    return i;
  }

  take(i: number): void {
    this.next[i] = i + 1;
  }
}

function openRun(track: BentTrack, drive: Drive, start: number, grid: LimitGrid, window: number): FastestRun {
  const begin = Math.min(track.length, Math.max(0, start));
  const { distances, squares, stops } = fromPlace(grid, begin);
  const limits = Float64Array.from(squares);
  stop(distances, squares, stops);
  const last = distances.length - 1;
  if (drive.departs === 'rest') squares[0] = 0;
  if (drive.arrives === 'rest') squares[last] = 0;
  forward(distances, squares, drive.accelerate);
  backward(distances, squares, drive.brake);
  const run = new Run(distances[0], Math.sqrt(squares[0]));
  run.stand(stopTime(stops, distances[0], window));
  for (let i = 1; i <= last; i++) {
    runCell(run, drive, distances, i, squares[i - 1], squares[i], limits, 0);
    run.stand(stopTime(stops, distances[i], window));
  }
  const rolls = { in: squares[0] > 0, out: squares[last] > 0 };
  return { lead: run, lap: null, rolls };
}

function lapRun(track: BentTrack, drive: Drive, start: number, grid: LimitGrid, window: number): FastestRun {
  const laps = Math.floor(start / track.length);
  const { distances, squares, stops } = roundFrom(grid, start - laps * track.length, track.length);
  const last = distances.length - 1;
  const meet = () => (squares[0] = squares[last] = Math.min(squares[0], squares[last]));
  const limits = Float64Array.from(squares);
  stop(distances, squares, stops);
  meet();
  // Twice round: the second time begins with what the first came to.
  for (const pass of [forward, forward]) {
    pass(distances, squares, drive.accelerate);
    meet();
  }
  for (const pass of [backward, backward]) {
    pass(distances, squares, drive.brake);
    meet();
  }
  const begin = laps * track.length + distances[0];
  const stand = (i: number) => stopTime(stops, distances[i], window);
  const lap = new Run(0, Math.sqrt(squares[0]));
  for (let i = 1; i <= last; i++) {
    runCell(lap, drive, distances, i, squares[i - 1], squares[i], limits, -distances[0]);
    lap.stand(stand(i));
  }
  const lead = new Run(begin, drive.departs === 'rest' ? 0 : Math.sqrt(squares[0]));
  if (drive.departs === 'rolling' && squares[0] > 0) {
    return { lead, lap, rolls: { in: true, out: true } };
  }
  // From rest it comes up to what the laps do; a stop where it begins is one it has made already.
  let square = 0;
  for (let round = 0; round < MOST_LEAD_LAPS && square < squares[0]; round++) {
    const shift = begin - distances[0] + round * track.length;
    for (let i = 1; i <= last; i++) {
      const before = square;
      square = Math.min(squares[i], square + 2 * drive.accelerate * (distances[i] - distances[i - 1]));
      runCell(lead, drive, distances, i, before, square, limits, shift);
      lead.stand(stand(i));
    }
  }
  return { lead, lap, rolls: { in: false, out: true } };
}

function stop(places: Float64Array, squares: Float64Array, stops: ReadonlyMap<number, number>): void {
  for (const place of stops.keys()) {
    const i = lowerBound(places, place);
    if (places[i] === place) squares[i] = 0;
  }
}

/**
 * On through a cell: up as fast as it speeds up, along the limit, down as fast as it brakes. Where it goes over from
 * one to the other within the cell, there it does.
 *
 * @param from, to the squares of the speeds at both ends of the cell
 * @param shift what is added to its places
 */
function runCell(
  run: Run,
  { accelerate, brake }: Drive,
  places: Float64Array,
  i: number,
  from: number,
  to: number,
  limits: Float64Array,
  shift: number,
): void {
  const h = places[i] - places[i - 1];
  const slack = 1e-9 * (from + to);
  const rising = Math.abs(to - from - 2 * accelerate * h) <= slack;
  const falling = Math.abs(from - to - 2 * brake * h) <= slack;
  const along = limits[i - 1] - from <= slack && limits[i] - to <= slack;
  if (!rising && !falling && !along) {
    const slope = (limits[i] - limits[i - 1]) / h;
    const up = (x: number) => from + 2 * accelerate * x;
    const level = (x: number) => limits[i - 1] + slope * x;
    const down = (x: number) => to + 2 * brake * (h - x);
    const meetings = [
      (to + 2 * brake * h - from) / (2 * (accelerate + brake)),
      (limits[i - 1] - from) / (2 * accelerate - slope),
      (to + 2 * brake * h - limits[i - 1]) / (slope + 2 * brake),
    ];
    meetings
      .filter((x) => x > 1e-6 * h && x < h * (1 - 1e-6))
      .sort((a, b) => a - b)
      .forEach((x) => run.to(shift + places[i - 1] + x, Math.sqrt(Math.min(up(x), level(x), down(x)))));
  }
  run.to(shift + places[i], Math.sqrt(to));
}

/** The grid from a place on. */
function fromPlace({ distances, squares, stops }: LimitGrid, begin: number): LimitGrid {
  const i = lowerBound(distances, begin);
  if (distances[i] === begin) return { distances: distances.slice(i), squares: squares.slice(i), stops };
  const least = Math.min(squares[i - 1], squares[i]);
  return {
    distances: Float64Array.from([begin, ...distances.subarray(i)]),
    squares: Float64Array.from([least, ...squares.subarray(i)]),
    stops,
  };
}

/** A lap's grid from a place on, round to it again. */
function roundFrom(grid: LimitGrid, begin: number, length: number): LimitGrid {
  const after = fromPlace(grid, begin);
  const end = lowerBound(grid.distances, begin);
  const first = after.distances[0];
  const places = [...after.distances];
  const squares = [...after.squares];
  // The last place of a lap is its first again.
  places.pop();
  const lastSquare = squares.pop() as number;
  squares.push(Math.min(lastSquare, grid.squares[0]));
  places.push(length);
  for (let i = 1; i < end; i++) {
    places.push(grid.distances[i] + length);
    squares.push(grid.squares[i]);
  }
  if (first > 0) {
    places.push(first + length);
    squares.push(squares[0]);
  }
  const stops = new Map(grid.stops);
  for (const [place, seconds] of grid.stops) stops.set(place + length, seconds);
  if (grid.stops.has(length)) stops.set(0, grid.stops.get(length) as number);
  return { distances: Float64Array.from(places), squares: Float64Array.from(squares), stops };
}

function forward(places: Float64Array, squares: Float64Array, rate: number): void {
  for (let i = 1; i < places.length; i++) {
    const most = squares[i - 1] + 2 * rate * (places[i] - places[i - 1]);
    if (squares[i] > most) squares[i] = most;
  }
}

function backward(places: Float64Array, squares: Float64Array, rate: number): void {
  for (let i = places.length - 2; i >= 0; i--) {
    const most = squares[i + 1] + 2 * rate * (places[i + 1] - places[i]);
    if (squares[i] > most) squares[i] = most;
  }
}

function stopTime(stops: ReadonlyMap<number, number>, place: number, window: number): number {
  const seconds = stops.get(place);
  return seconds === undefined ? 0 : seconds + window;
}
