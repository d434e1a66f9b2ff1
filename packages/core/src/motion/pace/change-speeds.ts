import type { Pace, SpeedKey } from '../../document/shot-pace.js';
import { shiftFrom } from './change-keys.js';

// Edits of a pace's speeds. Keys stay in order, all by frame or all by distance.

/** Least speed by distance, m/s: a stopped rider would never reach the next key. */
export const SLOWEST = 0.01;

const keyedAt = (key: SpeedKey): number => key.frame ?? key.distance ?? 0;

/** A speed that a key may have: by distance neither nought nor of another sign than the others. */
function allowed(speeds: readonly SpeedKey[], speed: number): number {
  if (speeds.length === 0 || speeds[0].frame !== undefined) return speed;
  const sign = Math.sign(speeds[0].speed) || 1;
  return sign * Math.max(SLOWEST, sign * speed);
}

/** Puts a speed in, in the place of one that is there. */
export function addSpeed(pace: Pace, key: SpeedKey): Pace {
  const others = pace.speeds.filter((other) => Math.abs(keyedAt(other) - keyedAt(key)) > 1e-6);
  const speeds = [...others, { ...key, speed: allowed(pace.speeds, key.speed) }];
  return { ...pace, speeds: speeds.sort((a, b) => keyedAt(a) - keyedAt(b)) };
}

/** Gives a key another speed and, where it is keyed by frame, another frame between its neighbours. */
export function moveSpeed(pace: Pace, i: number, speed: number, frame: number): Pace {
  const { speeds } = pace;
  const low = (speeds[i - 1]?.frame ?? -Infinity) + 1;
  const high = (speeds[i + 1]?.frame ?? Infinity) - 1;
  const place = speeds[i].frame === undefined ? {} : { frame: Math.min(high, Math.max(low, frame)) };
  return {
    ...pace,
    speeds: speeds.map((key, k) => (k === i ? { ...key, ...place, speed: allowed(speeds, speed) } : key)),
  };
}

/**
 * Gives the stretch after key i another mean speed: it takes more or fewer frames, with all that follows. A level one
 * stays.
 *
 * @param speed  m/s, its sign left out
 * @param metres what the keys' values are in
 */
export function stretchAtSpeed(pace: Pace, i: number, speed: number, fps: number, metres: number): Pace {
  const [key, next] = [pace.keys[i], pace.keys[i + 1]];
  const rise = Math.abs(next.value - key.value) * metres;
  if (rise === 0) return pace;
  const frames = Math.max(1, (rise / Math.max(SLOWEST, Math.abs(speed))) * fps);
  return shiftFrom(pace, i + 1, frames - (next.frame - key.frame));
}
