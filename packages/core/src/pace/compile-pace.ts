import type { Pace } from '../document/shot-pace.js';
import { keyedCurve } from '../math/keyed-curve.js';

/** Distance along a path over time, ready for questions. Frames may be fractional. */
export interface CompiledPace {
  /** Metres from the path's first point; not yet held to an open path's ends. */
  distance(frame: number): number;
  /** Metres per second; at a key where it changes, that of the stretch that follows. */
  speed(frame: number): number;
}

/**
 * Compiles a pace by keys. Before the first and after the last key the rider is held; without keys it
 * stays at the pace's start.
 *
 * @param fps    frames a second
 * @param length the path's length in metres, which is what a lap is worth
 */
export function compilePace(pace: Pace, fps: number, length: number): CompiledPace {
  const metres = pace.unit === 'laps' ? length : 1;
  const keys = pace.mode === 'keys' ? pace.keys : [];
  if (keys.length === 0) {
    const distance = pace.start.value * metres;
    return { distance: () => distance, speed: () => 0 };
  }
  const curve = keyedCurve(keys);
  return {
    distance: (frame) => curve.value(frame) * metres,
    speed: (frame) => curve.rate(frame) * metres * fps,
  };
}
