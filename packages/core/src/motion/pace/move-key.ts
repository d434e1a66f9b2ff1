import type { Pace } from '../../document/shot-pace.js';

/**
 * The pace with key i at another frame and value. The key stays between its neighbours: it stops
 * one frame short of either.
 */
export function moveKey(pace: Pace, i: number, frame: number, value: number): Pace {
  const { keys } = pace;
  const low = i > 0 ? keys[i - 1].frame + 1 : -Infinity;
  const high = i < keys.length - 1 ? keys[i + 1].frame - 1 : Infinity;
  const held = Math.min(high, Math.max(low, frame));
  return {
    ...pace,
    keys: keys.map((key, k) => (k === i ? { ...key, frame: held, value } : key)),
  };
}
