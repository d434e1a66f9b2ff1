import { bisect } from '../../geometry/math/search.js';
import type { Drive, Pace } from '../../document/shot-pace.js';
import type { PaceStop, PaceCurve } from './compiled-pace.js';
import type { BentTrack } from '../../geometry/path/corners.js';
import { fastestRun, type FastestRun } from './fastest-run.js';
import type { MotionState } from './run.js';
import { turnedPace, turnedTrack } from './turned-track.js';

/** A rider's drive: the fastest run, averaged over a window of time so that it keeps the jerk limit. */
interface SoftRun {
  readonly run: FastestRun;
  /** Seconds; 0 for none. */
  readonly window: number;
}

/**
 * The fastest run whose jerk keeps its limit as well.
 *
 * Averaged over a window of T seconds, place's third derivative is (a(t + T/2) − a(t − T/2)) / T, which with
 * T = (acceleration + braking) / jerk is within the limit wherever the run goes over from one to the other; speed and
 * acceleration are averages of what they were, and what they are limited by was spread over as much
 * ({@link fastestRun}), so every limit holds.
 */
function softRun(track: BentTrack, drive: Drive, start: number): SoftRun {
  const window = drive.jerk === null ? 0 : (drive.accelerate + drive.brake) / drive.jerk;
  const kept = runs.get(track) ?? new Map<string, SoftRun>();
  runs.set(track, kept);
  const key = JSON.stringify([drive, start]);
  const cached = kept.get(key);
  if (cached) return cached;
  const run = { run: fastestRun(track, drive, start, window), window };
  // A limit that is dragged leaves many behind it.
  if (kept.size >= MOST_RUNS) kept.clear();
  kept.set(key, run);
  return run;
}

/** By track the runs along it: riders of equal limits share theirs. */
const runs = new WeakMap<BentTrack, Map<string, SoftRun>>();
const MOST_RUNS = 8;

/**
 * A pace that is driven: from its start on as fast as its limits allow. On an open path to its end, on a closed
 * one lap after lap.
 *
 * @param metres what the start's value is in
 */
export function driveCurve(pace: Pace, track: BentTrack, fps: number, metres: number): PaceCurve {
  if (pace.drive.way === 'along') return forwardCurve(pace, track, fps, metres);
  // Against the path it is driven as along the path the other way round.
  const { length } = track;
  const { jet, stops, ...rest } = forwardCurve(
    turnedPace(pace, length, metres),
    turnedTrack(track),
    fps,
    metres,
  );
  return {
    ...rest,
    jet(frame, out) {
      jet(frame, out);
      out[0] = length - out[0];
      for (let k = 1; k < 4; k++) out[k] = -out[k];
    },
    stops: stops.map((stop) => ({ ...stop, distance: length - stop.distance })),
  };
}

function forwardCurve({ drive, start }: Pace, track: BentTrack, fps: number, metres: number): PaceCurve {
  const place = start.value * metres;
  const { run, window } = softRun(track, drive, place);
  const state = softState(run, window, track.length);
  const begun = beginning(
    run,
    window,
    track.closed ? place : Math.min(track.length, Math.max(0, place)),
    state,
  );
  const now: MotionState & { jerk: number } = { distance: 0, speed: 0, rate: 0, sum: 0, jerk: 0 };
  const frameOf = (seconds: number) => start.frame + (seconds - begun) * fps;
  const [squared, cubed] = [fps ** 2, fps ** 3];
  const seconds = run.lap === null ? run.lead.seconds + (run.rolls.out ? 0 : window / 2) : Infinity;
  return {
    jet(frame, out) {
      state(begun + (frame - start.frame) / fps, now);
      out[0] = now.distance;
      out[1] = now.speed / fps;
      out[2] = now.rate / squared;
      out[3] = now.jerk / cubed;
    },
    corners: [],
    stops: stopsOf(run, window, track.length, frameOf),
    from: start.frame,
    to: frameOf(seconds),
  };
}

type SoftState = (seconds: number, out: MotionState & { jerk: number }) => void;

function softState({ lead, lap, rolls }: FastestRun, window: number, length: number): SoftState {
  const end = lead.seconds;
  const lapSeconds = lap === null ? 0 : lap.seconds;
  const base = lead.place;
  const lapOf = (time: number) =>
    lap === null || (time < end && !rolls.in) ? 0 : Math.floor((time - end) / lapSeconds);
  /** As seen from a lap's start, so that sums stay small however many there were. */
  const exact = (time: number, from: number, out: MotionState) => {
    const shifted = time - from * lapSeconds;
    if (lap !== null && (shifted >= end || rolls.in)) {
      const n = Math.floor((shifted - end) / lapSeconds);
      const x = shifted - end - n * lapSeconds;
      lap.at(x, out);
      const lapSum = lap.sum;
      // Each lap before adds its own sum and, for being a length further on, a length for all of its time.
      const past = n * lapSum + (length * lapSeconds * n * (n - 1)) / 2;
      const leadSum = lead.sum;
      out.sum = leadSum + past + out.sum + n * length * x + base * (n * lapSeconds + x);
      out.distance += base + n * length;
      return;
    }
    if (!rolls.in && shifted < 0) {
      out.distance = lead.start;
      out.speed = out.rate = 0;
      out.sum = lead.start * shifted;
    } else if (!rolls.out && shifted > end) {
      out.distance = base;
      out.speed = out.rate = 0;
      out.sum = lead.sum + base * (shifted - end);
    } else lead.at(shifted, out);
  };
  const before: MotionState = { distance: 0, speed: 0, rate: 0, sum: 0 };
  const after: MotionState = { distance: 0, speed: 0, rate: 0, sum: 0 };
  return (seconds, out) => {
    const n = lapOf(seconds - window / 2);
    if (window === 0) {
      exact(seconds, n, out);
      out.jerk = 0;
    } else {
      exact(seconds - window / 2, n, before);
      exact(seconds + window / 2, n, after);
      out.distance = (after.sum - before.sum) / window;
      out.speed = (after.distance - before.distance) / window;
      out.rate = (after.speed - before.speed) / window;
      out.jerk = (after.rate - before.rate) / window;
    }
    out.distance += n * length;
  };
}

/** The second of the run at which it is where it starts. */
function beginning(run: FastestRun, window: number, place: number, state: SoftState): number {
  // From rest the averaged run moves as soon as the window reaches the start.
  if (!run.rolls.in) return -window / 2;
  const now = { distance: 0, speed: 0, rate: 0, sum: 0, jerk: 0 };
  let seconds = 0;
  for (let step = 0; step < 20; step++) {
    state(seconds, now);
    if (Math.abs(now.distance - place) < 1e-12 * (1 + Math.abs(place)) || now.speed === 0) break;
    seconds -= (now.distance - place) / now.speed;
  }
  return seconds;
}

/** Stops as they play; of laps, those of the first two. */
function stopsOf(
  { lead, lap }: FastestRun,
  window: number,
  length: number,
  frameOf: (seconds: number) => number,
): PaceStop[] {
  const stops: PaceStop[] = [];
  const end = lead.seconds;
  const base = lead.place;
  const collect = (run: typeof lead, begun: number, along: number) => {
    for (const { from, to, place } of run.stops()) {
      stops.push({
        from: frameOf(begun + from + window / 2),
        to: frameOf(begun + to - window / 2),
        distance: along + place,
      });
    }
  };
  collect(lead, 0, 0);
  if (lap !== null) [0, 1].forEach((n) => collect(lap, end + n * lap.seconds, base + n * length));
  return stops;
}

/** How long a drive takes, seconds: along an open path, or round a closed one once it goes steadily. */
export function driveSeconds(given: Pace, from: BentTrack, metres: number): number {
  const against = given.drive.way === 'against';
  const pace = against ? turnedPace(given, from.length, metres) : given;
  const track = against ? turnedTrack(from) : from;
  const { run, window } = softRun(track, pace.drive, pace.start.value * metres);
  if (run.lap !== null) return run.lap.seconds;
  return run.lead.seconds + ((run.rolls.in ? 0 : 1) + (run.rolls.out ? 0 : 1)) * (window / 2);
}

/** Top speeds beyond this are not tried, m/s. */
const FASTEST = 1000;
const SLOWEST_TOP = 0.01;

/**
 * Top speed at which a drive takes a number of seconds.
 *
 * @returns null where even without a top speed it takes longer, or at a crawl less
 */
export function topSpeedFor(pace: Pace, track: BentTrack, metres: number, seconds: number): number | null {
  const takes = (top: number) => driveSeconds({ ...pace, drive: { ...pace.drive, top } }, track, metres);
  if (takes(FASTEST) > seconds || takes(SLOWEST_TOP) < seconds) return null;
  // In the logarithm of speed, to a part in 10⁹.
  const inTime = (exponent: number) => takes(Math.exp(exponent)) <= seconds;
  return Math.exp(bisect(inTime, Math.log(SLOWEST_TOP), Math.log(FASTEST), 34));
}
