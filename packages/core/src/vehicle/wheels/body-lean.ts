import { modulo, RADIANS } from '../../geometry/math/angle.js';
import type { Body } from '../../document/shot-rider.js';
import { GRAVITY } from '../../geometry/math/gravity.js';

/** How a body leans and dips, radians: roll positive to the right, pitch positive nose up. */
export interface BodyLean {
  roll(frame: number): number;
  pitch(frame: number): number;
}

/** Acceleration of a body, m/s²: to the left, and ahead. */
export interface Acceleration {
  readonly left: (frame: number) => number;
  readonly ahead: (frame: number) => number;
}

/** Samples a frame. */
const SUB = 4;
/** Maximum of samples before the range that still have an effect. */
const MOST_LEAD = 4_000;
/** A loop is run at most this many times. */
const MOST_ROUNDS = 50;
/** A critically damped spring is within 2 % of its target after this many of its time constants. */
const SETTLED = 5.8339;

/**
 * The sprung body: degrees per g out of the bend and down at the nose on braking, by a critically damped spring that
 * is within 2 % of its target `settle` seconds after a push, and never overshoots. In a loop it runs round and then
 * back again, so that it lags neither way and closes at the seam.
 */
export function compileLean(
  body: Body,
  push: Acceleration,
  { first, last, fps, loop }: { first: number; last: number; fps: number; loop: boolean },
): BodyLean {
  const track = (value: (frame: number) => number) =>
    springTrack(value, body.settle, { first, count: last - first + 1, fps, loop });
  let roll: ((frame: number) => number) | null = null;
  let pitch: ((frame: number) => number) | null = null;
  const toRoll = (body.rollPerG * RADIANS) / GRAVITY;
  const toPitch = (body.pitchPerG * RADIANS) / GRAVITY;
  return {
    // The bend pushes to the left, so the body leans to the right.
    roll: (frame) => toRoll * (roll ??= track(push.left))(frame),
    pitch: (frame) => toPitch * (pitch ??= track(push.ahead))(frame),
  };
}

/** A value over time as a critically damped spring follows it; asked for by frame. */
export function springTrack(
  value: (frame: number) => number,
  settle: number,
  { first, count, fps, loop }: { first: number; count: number; fps: number; loop: boolean },
): (frame: number) => number {
  if (settle <= 0) return value;
  const omega = SETTLED / settle;
  const dt = 1 / (fps * SUB);
  // Motion before the range has an effect in it, and the seam asks for a frame after it.
  const lead = loop ? 0 : Math.min(MOST_LEAD, Math.ceil((2 * settle) / dt));
  const size = loop ? count * SUB : lead + (count + 1) * SUB + 1;
  const input = Float64Array.from({ length: size }, (_, i) => value(first + (i - lead + 0.5) / SUB));
  const follow = (drive: Float64Array, rounds: number): Float64Array => {
    const out = new Float64Array(size);
    let [place, speed] = [drive[0], 0];
    const fade = Math.exp(-omega * dt);
    for (let n = 0; n < rounds * size; n++) {
      const i = n % size;
      out[i] = place;
      // Exact while the push is even over the step.
      const off = place - drive[i];
      const swing = speed + omega * off;
      place = drive[i] + (off + swing * dt) * fade;
      speed = (speed - omega * swing * dt) * fade;
    }
    return out;
  };
  let track: Float64Array;
  if (loop) {
    const rounds = 1 + Math.min(MOST_ROUNDS, Math.max(1, Math.ceil((4 * settle) / (size * dt))));
    track = follow(follow(input, rounds).reverse(), rounds).reverse();
  } else {
    track = follow(input, 1);
  }
  return (frame) => {
    // Run back over steps, what holds for a step holds for its middle.
    const asked = (frame - first) * SUB + lead - (loop ? 0.5 : 0);
    const place = loop ? modulo(asked, size) : Math.min(size - 1, Math.max(0, asked));
    const i = Math.min(size - 1, Math.floor(place));
    const next = loop ? (i + 1) % size : Math.min(size - 1, i + 1);
    return track[i] + (place - i) * (track[next] - track[i]);
  };
}
