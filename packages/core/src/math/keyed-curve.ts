import { monotoneTangents } from './monotone-tangents.js';

/** A value at a frame; `ease` shapes the stretch that follows. `handles` runs as `smooth`. */
export interface CurveKey {
  readonly frame: number;
  readonly value: number;
  readonly ease: 'linear' | 'hold' | 'smooth' | 'handles';
}

/** A keyed value, ready for questions. Frames may be fractional. */
export interface KeyedCurve {
  value(frame: number): number;
  /** Change per frame; at a key where it changes, that of the stretch that follows. */
  rate(frame: number): number;
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
 * Compiles keys in rising order of frame, at least one. Before the first and after the last the value is held.
 *
 * `linear` changes evenly, `hold` stays until the next key, `smooth` is a monotone cubic
 * (Fritsch & Carlson 1980) that leaves and arrives at the rate of its neighbours, and at rest where
 * there are none.
 */
export function keyedCurve(keys: readonly CurveKey[]): KeyedCurve {
  const stretches = keys.slice(1).map((key, i) => stretchBetween(keys, i, key));
  const first = keys[0];
  const last = keys[keys.length - 1];
  return {
    value(frame) {
      if (frame <= first.frame) return first.value;
      if (frame >= last.frame) return last.value;
      const s = stretches[stretchAt(stretches, frame)];
      const x = frame - s.from;
      return s.a + x * (s.b + x * (s.c + x * s.d));
    },
    rate(frame) {
      if (frame < first.frame || frame > last.frame || stretches.length === 0) return 0;
      const s = stretches[stretchAt(stretches, frame)];
      const x = frame - s.from;
      return s.b + x * (2 * s.c + 3 * x * s.d);
    },
  };
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

function stretchBetween(keys: readonly CurveKey[], i: number, next: CurveKey): Stretch {
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
function smoothSlopes(keys: readonly CurveKey[], i: number): [number, number] {
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

const isSmooth = (key: CurveKey): boolean => key.ease === 'smooth' || key.ease === 'handles';

/** The slope of the straight stretch that begins at key i; 0 for a hold or where there is none. */
function straightSlope(keys: readonly CurveKey[], i: number): number {
  if (i < 0 || i >= keys.length - 1 || keys[i].ease === 'hold') return 0;
  return (keys[i + 1].value - keys[i].value) / (keys[i + 1].frame - keys[i].frame);
}
