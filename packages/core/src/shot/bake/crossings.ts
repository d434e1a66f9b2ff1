import { POSE } from '../../motion/pose/pose.js';

/** Passing of two riders on one path. */
export interface Crossing {
  /** In samples from the first; between two of them. */
  readonly sample: number;
  /** Metres along the path. */
  readonly distance: number;
  /** How far they are from each other there, metres in the world. */
  readonly gap: number;
}

/**
 * Passings of two riders on one path, from their poses: one changes from behind the other to ahead. Riders at the
 * same distance, or side by side, do not pass.
 *
 * @param length the path's length where it is closed, so that laps are one place; else null
 */
export function crossings(a: Float64Array, b: Float64Array, length: number | null): Crossing[] {
  const found: Crossing[] = [];
  const count = Math.min(a.length, b.length) / POSE.size;
  const ahead = (i: number) => a[i * POSE.size + POSE.distance] - b[i * POSE.size + POSE.distance];
  for (let i = 1; i < count; i++) {
    const before = ahead(i - 1);
    const now = ahead(i);
    if (before === now) continue;
    // Lap by lap: the difference passes a whole number of lengths.
    const unit = length ?? Infinity;
    const low = Math.min(before, now);
    const high = Math.max(before, now);
    const lap = length === null ? 0 : Math.ceil(low / unit) * unit;
    if (lap < low || lap > high || (lap === before && i > 1)) continue;
    const part = (lap - before) / (now - before);
    const at = (pose: Float64Array, k: number) =>
      pose[(i - 1) * POSE.size + k] * (1 - part) + pose[i * POSE.size + k] * part;
    const gap = Math.hypot(at(a, 0) - at(b, 0), at(a, 1) - at(b, 1), at(a, 2) - at(b, 2));
    found.push({ sample: i - 1 + part, distance: at(a, POSE.distance), gap });
  }
  return found;
}
