import { metresPerValue } from './change-unit.js';
import type { Pace } from '../../document/shot-pace.js';
import type { PaceStop } from './compiled-pace.js';
import type { Track } from './track.js';
import { shiftFrom } from './change-keys.js';

/** How near a key is to where and when it stops, metres and frames; and a drive's stop, whose place is found by steps. */
const SAME = 1e-6;
const NEAR = 1e-3;

/**
 * A pace with a stop moved by some metres along the path; null if it does not set the distance of the stop itself (a
 * speed of 0 for a while stops wherever it happens to).
 *
 * @param stop as its compiled pace tells it
 */
export function moveStop(pace: Pace, stop: PaceStop, by: number, path: Track): Pace | null {
  if (pace.mode === 'drive') {
    const { stops } = pace.drive;
    const i = stopOfDrive(pace, stop, path);
    if (i < 0) return null;
    const distance = stops[i].distance + by;
    return {
      ...pace,
      drive: { ...pace.drive, stops: stops.map((one, k) => (k === i ? { ...one, distance } : one)) },
    };
  }
  if (pace.mode !== 'keys') return null;
  const metres = metresPerValue(pace, path);
  const keys = pace.keys.map((key) =>
    key.frame >= stop.from - SAME &&
    key.frame <= stop.to + SAME &&
    Math.abs(key.value * metres - stop.distance) < SAME
      ? { ...key, value: key.value + by / metres }
      : key,
  );
  return keys.some((key, i) => key !== pace.keys[i]) ? { ...pace, keys } : null;
}

/** A pace with a stop longer by some frames, and all that follows shifted; null if it does not set the duration itself. */
export function lengthenStop(
  pace: Pace,
  stop: PaceStop,
  frames: number,
  fps: number,
  path: Track,
): Pace | null {
  if (pace.mode === 'drive') {
    const i = stopOfDrive(pace, stop, path);
    if (i < 0) return null;
    const { stops } = pace.drive;
    const seconds = Math.max(0, stops[i].seconds + frames / fps);
    return {
      ...pace,
      drive: { ...pace.drive, stops: stops.map((one, k) => (k === i ? { ...one, seconds } : one)) },
    };
  }
  if (pace.mode !== 'keys') return null;
  const last = pace.keys.findIndex(({ frame }) => Math.abs(frame - stop.to) < SAME);
  if (last <= 0 || stop.to + frames < stop.from) return null;
  return shiftFrom(pace, last, frames);
}

/** Which of a drive's stops it is: the one at its place, in whatever lap; −1 where none is. */
function stopOfDrive(pace: Pace, stop: PaceStop, path: Track): number {
  const { length, closed } = path;
  const { stops } = pace.drive;
  return stops.findIndex(({ distance }) => {
    const off = stop.distance - distance;
    return Math.abs(closed ? off - length * Math.round(off / length) : off) < NEAR;
  });
}
