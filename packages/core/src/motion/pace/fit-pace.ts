import { changeUnit, metresPerValue } from './change-unit.js';
import { defaultsOf } from '../../document/defaults.js';
import { Pace, PaceKey, type SpeedKey } from '../../document/shot-pace.js';
import { gaussLegendreRule } from '../../geometry/math/gauss-legendre.js';
import { compilePace } from './compile-pace.js';
import type { CompiledPace } from './compiled-pace.js';
import type { BentTrack } from '../../geometry/path/corners.js';

/** How far a fitted pace may be from the one it was fitted to. */
export interface FitTolerance {
  /** Metres. */
  readonly distance: number;
  /** A part of the highest speed. */
  readonly speed: number;
}

/** A pace of another mode, and how far it is from the one before within the frames it was fitted to. */
export interface FittedPace {
  readonly pace: Pace;
  /** Metres. */
  readonly distanceError: number;
  /** m/s. */
  readonly speedError: number;
}

const FIT: FitTolerance = { distance: 1e-3, speed: 0.01 };

/** No stretch is divided further, frames. */
const SHORTEST = 0.1;
/** Frames in which a step in speed or distance is made. */
const STEP = 1e-3;
const RULE = gaussLegendreRule(8);
/** Both errors are held to this part of their tolerances while fitting, so that what lies between looks does too. */
const MARGIN = 0.8;

/** The frames to fit over: those a pace speaks for itself, or where it has no end those of the shot. */
function fittingFrames(pace: CompiledPace, range: { first: number; last: number }): [number, number] {
  const from = Number.isFinite(pace.from) ? pace.from : range.first;
  const to = Number.isFinite(pace.to) ? pace.to : Math.max(range.last + 1, from + 1);
  return to > from ? [from, to] : [from, from + 1];
}

/**
 * A pace in another mode that moves as it did, within a tolerance.
 *
 * Into keys: cubics between few keys, each with the place and the speed it has there. Into speeds: straight
 * ramps between few keys, by least squares, so that their distance does not drift. Into a drive: the highest
 * speed, acceleration, braking and sideways grip that were seen are its limits and its stops are kept; a drive
 * is then as fast as those allow, so the difference is only measured.
 */
export function fitPace(
  pace: Pace,
  mode: Pace['mode'],
  fps: number,
  track: BentTrack,
  range: { first: number; last: number },
  tolerance: FitTolerance = FIT,
): FittedPace {
  const before = compilePace(pace, fps, track);
  const [from, to] = fittingFrames(before, range);
  const metres = metresPerValue(pace, track);
  const start = { frame: from, value: before.distance(from) / metres };
  const fit = new Fit(before, fps, from, to, tolerance);
  const built: Pace =
    mode === 'keys'
      ? changeUnit(
          { ...changeUnit(pace, 'metres', track.length), mode, keys: fit.keys() },
          pace.unit,
          track.length,
        )
      : mode === 'speed'
        ? { ...pace, mode, speeds: fit.speeds(), start }
        : { ...pace, mode, drive: limitsSeen(pace, before, fps, track, from, to), start };
  const after = compilePace(built, fps, track);
  const errors = fit
    .samples(64)
    .map((frame) => [
      Math.abs(after.distance(frame) - before.distance(frame)),
      Math.abs(after.speed(frame) - before.speed(frame)),
    ]);
  const most = (k: 0 | 1) => errors.reduce((sum, error) => Math.max(sum, error[k]), 0);
  return { pace: built, distanceError: most(0), speedError: most(1) };
}

/**
 * Few keys that are where one place a frame says, metres; between frames it goes on smoothly. Takes stretches with a bend of their own
 * no shorter than a tenth of a frame.
 *
 * @param frames rising, two or more
 */
export function keysThrough(
  frames: readonly number[],
  places: readonly number[],
  fps: number,
  track: BentTrack,
  tolerance: FitTolerance,
): PaceKey[] {
  const last = frames.length - 1;
  // Straight at its ends, or a smooth curve would begin and end at rest.
  const ease = (i: number) => (i === 0 || i >= last - 1 ? 'linear' : 'smooth');
  const keys = frames.map((frame, i) => ({ ...defaultsOf(PaceKey), frame, value: places[i], ease: ease(i) }));
  const pace: Pace = { ...defaultsOf(Pace), keys: keys as PaceKey[] };
  const motion = { ...compilePace(pace, fps, track), corners: [], stops: [] };
  return new Fit(motion, fps, frames[0], frames[last], tolerance).keys();
}

/**
 * A pace in another mode. If it came from that mode and did not change since, the former one is restored; else it is
 * fitted to the present motion.
 */
export function changeMode(
  pace: Pace,
  mode: Pace['mode'],
  fps: number,
  track: BentTrack,
  range: { first: number; last: number },
): FittedPace {
  if (mode === pace.mode) return { pace, distanceError: 0, speedError: 0 };
  const kept: Pace = { ...pace, mode };
  if (says(kept)) {
    const again = fitPace(kept, pace.mode, fps, track, range);
    if (alike(played(again.pace), played(pace))) return { ...again, pace: kept };
  }
  return fitPace(pace, mode, fps, track, range);
}

/** Whether a pace has the data of its mode; a drive always has. */
const says = ({ mode, keys, speeds }: Pace) =>
  mode === 'drive' || (mode === 'keys' ? keys.length > 0 : speeds.length > 0);

/** Played range of a pace. */
function played({ mode, keys, speeds, drive, start }: Pace): unknown {
  if (mode === 'keys') return keys;
  return mode === 'speed' ? [speeds, start] : [drive, start];
}

/** Whether two plain values are the same but for rounding. */
function alike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b));
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => alike((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
  );
}

class Fit {
  private readonly corners: number[];
  /** The handle with which the next key is arrived at. */
  private into: [number, number] = [0, 0];
  private readonly most: { readonly distance: number; readonly speed: number };

  constructor(
    private readonly pace: CompiledPace,
    private readonly fps: number,
    from: number,
    to: number,
    tolerance: FitTolerance,
  ) {
    const stops = pace.stops.flatMap((stop) => [stop.from, stop.to]);
    const inside = [...pace.corners, ...stops].filter((frame) => frame > from && frame < to);
    this.corners = [...new Set([from, ...inside, to])].sort((a, b) => a - b);
    const fastest = this.samples(16).reduce((most, frame) => Math.max(most, Math.abs(pace.speed(frame))), 0);
    this.most = { distance: tolerance.distance * MARGIN, speed: tolerance.speed * fastest * MARGIN };
  }

  /** Frames between corners, never on one. */
  samples(each: number): number[] {
    return this.corners
      .slice(1)
      .flatMap((to, i) =>
        Array.from({ length: each }, (_, k) => this.corners[i] + ((to - this.corners[i]) * (k + 0.5)) / each),
      );
  }

  keys(): PaceKey[] {
    const keys: PaceKey[] = [];
    this.into = [0, 0];
    const last = this.corners.length - 1;
    for (let i = 0; i < last; i++) this.keysBetween(this.corners[i], this.corners[i + 1], keys);
    const end = this.corners[last];
    keys.push({ frame: end, value: this.pace.distance(end), ease: 'linear', in: this.into, out: [0, 0] });
    return keys;
  }

  private keysBetween(from: number, to: number, keys: PaceKey[]): void {
    const { pace, fps } = this;
    const frames = to - from;
    const hair = frames * 1e-9;
    const value = pace.distance(from);
    const reached = pace.distance(to - hair);
    const leave = pace.speed(from + hair) / fps;
    const arrive = pace.speed(to - hair) / fps;
    const rise = reached - value;
    const off = (x: number) => {
      const u = x / frames;
      const cubic =
        value +
        u *
          (leave * frames +
            u * (3 * rise - (2 * leave + arrive) * frames + u * ((leave + arrive) * frames - 2 * rise)));
      const rate =
        leave +
        (u / frames) *
          (2 * (3 * rise - (2 * leave + arrive) * frames) + 3 * u * ((leave + arrive) * frames - 2 * rise));
      const there = from + x;
      return (
        Math.abs(cubic - pace.distance(there)) <= this.most.distance &&
        Math.abs(rate * fps - pace.speed(there)) <= this.most.speed
      );
    };
    const samples = Array.from({ length: 15 }, (_, k) => (frames * (k + 1)) / 16);
    if (frames > SHORTEST && !samples.every(off)) {
      const middle = frames > 2 ? Math.round((from + to) / 2) : (from + to) / 2;
      this.keysBetween(from, middle, keys);
      this.keysBetween(middle, to, keys);
      return;
    }
    const third = frames / 3;
    const straight = Math.abs(leave - arrive) * frames < 1e-9 && Math.abs(rise - leave * frames) < 1e-9;
    const steps = Math.abs(pace.distance(to) - reached) > this.most.distance;
    keys.push({
      frame: from,
      value,
      ease: straight ? (steps && rise === 0 ? 'hold' : 'linear') : 'handles',
      in: this.into,
      out: [third, leave * third],
    });
    this.into = [-third, -arrive * third];
    if (steps && !(straight && rise === 0)) {
      keys.push({ frame: to - STEP, value: reached, ease: 'linear', in: this.into, out: [0, 0] });
    }
  }

  speeds(): SpeedKey[] {
    const keys: SpeedKey[] = [];
    let run: number[] = [];
    const flush = () => {
      if (run.length > 1) this.rampsOver(run, keys);
      run = [];
    };
    for (let i = 0; i + 1 < this.corners.length; i++) {
      const [from, to] = [this.corners[i], this.corners[i + 1]];
      const even = this.evenSpeed(from, to);
      if (even !== null) {
        flush();
        keys.push({ frame: from, speed: even, ease: 'hold' });
        continue;
      }
      const hair = 1e-9 * (to - from);
      const jumps =
        run.length > 0 &&
        Math.abs(this.pace.speed(from + hair) - this.pace.speed(from - hair)) > this.most.speed;
      if (jumps) flush();
      run.push(...(run.length === 0 ? [from, to] : [to]));
    }
    const end = this.corners[this.corners.length - 1];
    const open = run.length > 1;
    flush();
    if (!open) keys.push({ frame: end, speed: this.pace.speed(end - 1e-9), ease: 'linear' });
    return keys;
  }

  private evenSpeed(from: number, to: number): number | null {
    const speeds = [0.001, 0.25, 0.5, 0.75, 0.999].map((part) => this.pace.speed(from + (to - from) * part));
    const spread = Math.max(...speeds) - Math.min(...speeds);
    return spread <= 1e-9 * (1 + Math.abs(speeds[0])) ? speeds[2] : null;
  }

  /** Straight ramps over some stretches without a jump in speed between them. */
  private rampsOver(corners: readonly number[], keys: SpeedKey[]): void {
    const end = corners[corners.length - 1];
    const ends = end === this.corners[this.corners.length - 1];
    // The next stretch begins with a key of its own; the ramp ends a hair before it.
    let knots = ends ? [...corners] : [...corners.slice(0, -1), end - STEP];
    for (;;) {
      const values = projected(knots, (frame) => this.pace.speed(frame));
      const bad = this.badRamps(knots, values);
      if (bad.length === 0) {
        knots.forEach((frame, i) => keys.push({ frame, speed: values[i], ease: 'linear' }));
        return;
      }
      const more = bad.map((i) => (knots[i] + knots[i + 1]) / 2);
      knots = [...knots, ...more].sort((a, b) => a - b);
    }
  }

  private badRamps(knots: readonly number[], values: readonly number[]): number[] {
    const bad: number[] = [];
    const start = this.pace.distance(knots[0]);
    let run = 0;
    for (let i = 0; i + 1 < knots.length; i++) {
      const frames = knots[i + 1] - knots[i];
      let good = true;
      for (let k = 1; k <= 8; k++) {
        const x = (frames * k) / 8;
        const frame = knots[i] + x - (k === 8 ? frames * 1e-9 : 0);
        const slope = (values[i + 1] - values[i]) / frames;
        const distance = start + run + (x * (values[i] + (slope * x) / 2)) / this.fps;
        if (Math.abs(distance - this.pace.distance(frame)) > this.most.distance) good = false;
        if (Math.abs(values[i] + slope * x - this.pace.speed(frame)) > this.most.speed) good = false;
      }
      run += (frames * (values[i] + values[i + 1])) / 2 / this.fps;
      if (!good && frames > SHORTEST) bad.push(i);
    }
    return bad;
  }
}

/**
 * The values at knots whose straight ramps are nearest to a function in the mean square. Its error has no mean
 * over any ramp and its neighbours, so the ramps' integral follows the function's all along.
 */
function projected(knots: readonly number[], valueAt: (x: number) => number): number[] {
  const n = knots.length;
  const diagonal = new Array<number>(n).fill(0);
  const beside = new Array<number>(n - 1).fill(0);
  const right = new Array<number>(n).fill(0);
  for (let i = 0; i + 1 < n; i++) {
    const half = (knots[i + 1] - knots[i]) / 2;
    for (let k = 0; k < RULE.nodes.length; k++) {
      const u = (1 + RULE.nodes[k]) / 2;
      const value = valueAt(knots[i] + 2 * half * u) * RULE.weights[k] * half;
      right[i] += value * (1 - u);
      right[i + 1] += value * u;
    }
    diagonal[i] += (2 * half) / 3;
    diagonal[i + 1] += (2 * half) / 3;
    beside[i] = half / 3;
  }
  for (let i = 1; i < n; i++) {
    const factor = beside[i - 1] / diagonal[i - 1];
    diagonal[i] -= factor * beside[i - 1];
    right[i] -= factor * right[i - 1];
  }
  for (let i = n - 1; i >= 0; i--) {
    right[i] = (right[i] - (i + 1 < n ? beside[i] * right[i + 1] : 0)) / diagonal[i];
  }
  return right;
}

/** No limit that was seen is taken to be lower. */
const LEAST = 0.05;

function limitsSeen(
  pace: Pace,
  motion: CompiledPace,
  fps: number,
  track: BentTrack,
  from: number,
  to: number,
): Pace['drive'] {
  let [top, accelerate, brake, sideways] = [LEAST, LEAST, LEAST, LEAST];
  for (let frame = from; frame <= to; frame += 0.25) {
    const speed = Math.abs(motion.speed(frame));
    const rate = motion.acceleration(frame) * Math.sign(motion.speed(frame));
    top = Math.max(top, speed);
    accelerate = Math.max(accelerate, rate);
    brake = Math.max(brake, -rate);
    sideways = Math.max(sideways, speed ** 2 * Math.abs(track.curvature(motion.distance(frame))));
  }
  const stops = motion.stops
    .filter((stop) => stop.from > from && stop.to < to)
    .map((stop) => ({ distance: stop.distance, seconds: (stop.to - stop.from) / fps }));
  const rolls = (frame: number) => (Math.abs(motion.speed(frame)) > 0.01 * top ? 'rolling' : 'rest');
  return {
    ...pace.drive,
    ...{ top, accelerate, brake, sideways, stops },
    // It goes the way the ride went.
    way: motion.distance(to) < motion.distance(from) ? 'against' : 'along',
    departs: rolls(from + 1e-6),
    arrives: rolls(to - 1e-6),
  };
}
