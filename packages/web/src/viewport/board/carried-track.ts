import { POSE } from '@fleet-rail/core';

/** Distance and speed of a carried rider: it has no path of its own to measure on. */
export interface CarriedTrack {
  /** Metres gone since the first sample, by sample. */
  readonly gone: Float64Array;
  /** Frames from one sample to the next. */
  readonly step: number;
}

/** @param poses POSE.size numbers a sample */
export function carriedTrack(poses: Float64Array, step: number): CarriedTrack {
  const count = poses.length / POSE.size;
  const gone = new Float64Array(count);
  for (let i = 1; i < count; i++) {
    const [a, b] = [(i - 1) * POSE.size, i * POSE.size];
    gone[i] =
      gone[i - 1] + Math.hypot(poses[b] - poses[a], poses[b + 1] - poses[a + 1], poses[b + 2] - poses[a + 2]);
  }
  return { gone, step };
}

/**
 * How far it has gone, and how fast it goes.
 *
 * @param frames since the first sample
 */
export function carriedAt(
  { gone, step }: CarriedTrack,
  frames: number,
  fps: number,
): { distance: number; speed: number } {
  const last = gone.length - 1;
  if (last < 1) return { distance: 0, speed: 0 };
  const at = Math.min(last, Math.max(0, frames / step));
  const i = Math.min(last - 1, Math.floor(at));
  const metres = gone[i + 1] - gone[i];
  return { distance: gone[i] + (at - i) * metres, speed: (metres * fps) / step };
}
