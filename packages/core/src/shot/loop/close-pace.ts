import { metresPerValue } from '../../motion/pace/change-unit.js';
import { bisect } from '../../geometry/math/search.js';
import type { Pace, PaceKey } from '../../document/shot-pace.js';
import { compilePace } from '../../motion/pace/compile-pace.js';
import { driveSeconds, topSpeedFor } from '../../motion/pace/drive-curve.js';
import { timesAsFast, withFrames } from '../../motion/pace/in-time.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';

/** The cycle a pace has to fit: its first frame, its frames, and their rate. */
export interface CycleFrames {
  readonly first: number;
  readonly frames: number;
  readonly fps: number;
}

/** A pace that comes back to where it began, and how much faster it is for that. */
export interface ClosedPace {
  readonly pace: Pace;
  /** How often it goes round. */
  readonly laps: number;
  /** Factor of its speed. */
  readonly rate: number;
}

/**
 * A pace that goes whole times round a closed path in a cycle, as near as can be to as often as it did.
 *
 * Keys are fitted to the cycle and their values scaled; speeds are scaled; a drive is given the top speed that fits,
 * or where no top speed does, all of its limits are scaled.
 *
 * @returns null where it does not move at all
 */
export function wholeLaps(pace: Pace, path: CompiledPath, cycle: CycleFrames): ClosedPace | null {
  const { first, frames, fps } = cycle;
  const compiled = compilePace(pace, fps, path);
  if (pace.mode === 'drive') return drivenLaps(pace, path, cycle);
  const fitted = pace.mode === 'keys' ? spanning(pace, cycle) : pace;
  const run = pace.mode === 'keys' ? compilePace(fitted, fps, path) : compiled;
  const moved = run.distance(first + frames) - run.distance(first);
  if (Math.abs(moved) < 1e-9) return null;
  const laps = Math.sign(moved) * Math.max(1, Math.round(Math.abs(moved) / path.length));
  if (pace.mode === 'speed' && pace.speeds[0]?.distance !== undefined) {
    // As many times as fast as the same way took longer.
    const takes = framesTo(run.distance, first, run.distance(first) + laps * path.length, frames);
    const rate = takes / frames;
    return { pace: timesAsFast(pace, rate), laps, rate };
  }
  const rate = (laps * path.length) / moved;
  if (pace.mode === 'speed') return { pace: timesAsFast(pace, rate), laps, rate };
  const from = fitted.keys[0]?.value ?? 0;
  const keys = fitted.keys.map((key): PaceKey => ({
    ...key,
    value: from + (key.value - from) * rate,
    in: [key.in[0], key.in[1] * rate],
    out: [key.out[0], key.out[1] * rate],
  }));
  const before = compiled.distance(first + frames) - compiled.distance(first);
  return {
    pace: { ...fitted, keys, before: 'accumulate', after: 'accumulate' },
    laps,
    rate: Math.abs(before) < 1e-9 ? rate : (laps * path.length) / before,
  };
}

/** Keys that run from a cycle's first frame to the first of the next one. */
function spanning(pace: Pace, { first, frames }: CycleFrames): Pace {
  const { keys } = pace;
  const span = keys.length > 1 ? keys[keys.length - 1].frame - keys[0].frame : 0;
  if (span === 0) return pace;
  return withFrames(pace, { from: keys[0].frame, to: first, scale: frames / span });
}

function drivenLaps(pace: Pace, path: CompiledPath, { frames, fps }: CycleFrames): ClosedPace {
  const metres = metresPerValue(pace, path);
  const rolling: Pace = { ...pace, drive: { ...pace.drive, departs: 'rolling' } };
  const seconds = frames / fps;
  const lap = driveSeconds(rolling, path, metres);
  const laps = Math.max(1, Math.round(seconds / lap));
  const rate = (laps * lap) / seconds;
  const top = topSpeedFor(rolling, path, metres, seconds / laps);
  // A slower top speed can make up for any time that is too long; what is too short asks for more of all limits.
  const driven =
    top !== null && rate <= 1 ? { ...rolling, drive: { ...rolling.drive, top } } : timesAsFast(rolling, rate);
  return { pace: driven, laps, rate };
}

/** Frames until a distance that never turns back reaches a value. */
function framesTo(distance: (frame: number) => number, first: number, place: number, guess: number): number {
  const sign = Math.sign(place - distance(first));
  let high = guess;
  while ((distance(first + high) - place) * sign < 0) high *= 2;
  return bisect((frames) => (distance(first + frames) - place) * sign >= 0, 0, high, 100);
}

/**
 * A pace by keys that goes to its end in half a cycle and back in the other.
 *
 * @returns null where it is not by keys, or has fewer than two
 */
export function thereAndBack(pace: Pace, { first, frames }: CycleFrames): ClosedPace | null {
  const { keys } = pace;
  if (pace.mode !== 'keys' || keys.length < 2) return null;
  const span = keys[keys.length - 1].frame - keys[0].frame;
  const scale = frames / 2 / span;
  const halved = withFrames(pace, { from: keys[0].frame, to: first, scale });
  return { pace: { ...halved, before: 'mirror', after: 'mirror' }, laps: 0, rate: 1 / scale };
}

/**
 * A pace by keys that arrives at its last key at the speed it leaves its first one with: the mean of both, drawn by
 * handles. Speeds by frame end at what they begin with.
 *
 * @returns null where there is nothing to match
 */
export function matchedEnds(pace: Pace, path: CompiledPath, fps: number): Pace | null {
  if (pace.mode === 'speed' && pace.speeds.length > 1 && pace.speeds[0].frame !== undefined) {
    const [first, last] = [pace.speeds[0], pace.speeds[pace.speeds.length - 1]];
    const speed = (first.speed + last.speed) / 2;
    const speeds = pace.speeds.map((key) => (key === first || key === last ? { ...key, speed } : key));
    return { ...pace, speeds };
  }
  const { keys } = pace;
  if (pace.mode !== 'keys' || keys.length < 2) return null;
  const metres = metresPerValue(pace, path);
  const run = compilePace(pace, fps, path);
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const rate = (frame: number) => run.speed(frame) / fps / metres;
  const mean = (rate(first.frame) + rate(last.frame - 1e-6)) / 2;
  const n = keys.length;
  const stretch = (i: number) => keys[i + 1].frame - keys[i].frame;
  const [head, tail] = [stretch(0) / 3, stretch(n - 2) / 3];
  // Towards the keys inside, the curve goes on as the neighbours beyond them run.
  const inner = (i: number, side: 1 | -1) => rate(keys[i].frame + side * 1e-6);
  const drawn = keys.map((key): PaceKey => ({ ...key }));
  if (n === 2) {
    drawn[0] = { ...drawn[0], ease: 'handles', out: [head, mean * head] };
    drawn[1] = { ...drawn[1], in: [-head, -mean * head] };
    return { ...pace, keys: drawn };
  }
  drawn[0] = { ...drawn[0], ease: 'handles', out: [head, mean * head] };
  drawn[1] = { ...drawn[1], in: [-head, -inner(1, 1) * head] };
  drawn[n - 2] = { ...drawn[n - 2], ease: 'handles', out: [tail, inner(n - 2, -1) * tail] };
  drawn[n - 1] = { ...drawn[n - 1], in: [-tail, -mean * tail] };
  return { ...pace, keys: drawn };
}
