import type { Pace, PaceKey } from '../document/shot-pace.js';
import { monotoneTangents } from '../math/monotone-tangents.js';

/** Distance along a path over time, ready for questions. Frames may be fractional. */
export interface CompiledPace {
  /** Metres from the path's first point; not yet held to an open path's ends. */
  distance(frame: number): number;
  /** Metres per second; at a key where it changes, that of the stretch that follows. */
  speed(frame: number): number;
}

/** One stretch between two keys: value = a + b x + c x² + d x³, x in frames from its start. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
}

/**
 * Compiles a pace by keys. Before the first and after the last key the rider is held.
 *
 * `linear` runs at even speed, `hold` stays until the next key, `smooth` is a monotone cubic
 * (Fritsch & Carlson 1980) that leaves and arrives at the speed of its neighbours, and at rest where
 * there are none. Without keys the rider stays at the pace's start.
 *
 * @param fps    frames a second
 * @param length the path's length in metres, which is what a lap is worth
 */
export function compilePace(pace: Pace, fps: number, length: number): CompiledPace {
  const metres = pace.unit === 'laps' ? length : 1;
  const keys = pace.mode === 'keys' ? pace.keys : [];
  if (keys.length === 0) return standing(pace.start.value * metres);
  const stretches = keys.slice(1).map((key, i) => stretchBetween(keys, i, key));
  const first = keys[0];
  const last = keys[keys.length - 1];
  return {
    distance(frame) {
      if (frame <= first.frame) return first.value * metres;
      if (frame >= last.frame) return last.value * metres;
      const s = stretches[stretchAt(stretches, frame)];
      const x = frame - s.from;
      return (s.a + x * (s.b + x * (s.c + x * s.d))) * metres;
    },
    speed(frame) {
      if (frame < first.frame || frame > last.frame || stretches.length === 0) return 0;
      const s = stretches[stretchAt(stretches, frame)];
      const x = frame - s.from;
      return (s.b + x * (2 * s.c + 3 * x * s.d)) * metres * fps;
    },
  };
}

function standing(distance: number): CompiledPace {
  return { distance: () => distance, speed: () => 0 };
}

/** The stretch that holds a frame; at a key, the one that begins there, at the last key the last. */
function stretchAt(stretches: readonly Stretch[], frame: number): number {
  let low = 0;
  let high = stretches.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (stretches[middle].from <= frame) low = middle;
    else high = middle - 1;
  }
  return low;
}

function stretchBetween(keys: readonly PaceKey[], i: number, next: PaceKey): Stretch {
  const key = keys[i];
  const span = { from: key.frame, to: next.frame, a: key.value };
  const rise = next.value - key.value;
  const frames = next.frame - key.frame;
  if (key.ease === 'hold') return { ...span, b: 0, c: 0, d: 0 };
  if (key.ease === 'linear') return { ...span, b: rise / frames, c: 0, d: 0 };
  const [leave, arrive] = smoothSlopes(keys, i);
  return {
    ...span,
    b: leave,
    c: (3 * rise) / frames ** 2 - (2 * leave + arrive) / frames,
    d: (-2 * rise) / frames ** 3 + (leave + arrive) / frames ** 2,
  };
}

/** Values per frame at which a smooth stretch leaves key i and arrives at the next. */
function smoothSlopes(keys: readonly PaceKey[], i: number): [number, number] {
  // Stretches of other kinds are not bent: their own slope is the one to meet.
  let from = i;
  while (from > 0 && isSmooth(keys[from - 1])) from--;
  let to = i + 1;
  while (to < keys.length - 1 && isSmooth(keys[to])) to++;
  const run = keys.slice(from, to + 1);
  const tangents = monotoneTangents(
    run.map((key) => key.frame),
    run.map((key) => key.value),
    straightSlope(keys, from - 1),
    straightSlope(keys, to),
  );
  return [tangents[i - from], tangents[i - from + 1]];
}

const isSmooth = (key: PaceKey): boolean => key.ease === 'smooth' || key.ease === 'handles';

/** The slope of the straight stretch that begins at key i; 0 for a hold or where there is none. */
function straightSlope(keys: readonly PaceKey[], i: number): number {
  if (i < 0 || i >= keys.length - 1 || keys[i].ease === 'hold') return 0;
  return (keys[i + 1].value - keys[i].value) / (keys[i + 1].frame - keys[i].frame);
}
