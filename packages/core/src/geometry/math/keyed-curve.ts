import { guardedNewton, lastAtMost } from './search.js';
import { cubicJet, newJet, slopeJets, type Jet } from './jet.js';
import { monotoneTangents } from './monotone-tangents.js';

/** A value at a frame; `ease` shapes the stretch that follows. */
export interface CurveKey {
  readonly frame: number;
  readonly value: number;
  readonly ease: 'linear' | 'hold' | 'smooth' | 'handles';
  /** Of `handles`: from the key, in frames and value; at rest where there is none. */
  readonly in?: readonly [number, number];
  readonly out?: readonly [number, number];
}

/** A keyed value, ready for questions. Frames may be fractional. */
export interface KeyedCurve {
  value(frame: number): number;
  /** Change per frame; at a key where it changes, that of the stretch that follows. */
  rate(frame: number): number;
  /** The value and its first three derivatives per frame. */
  jet(frame: number, out: Jet): void;
  /** Its integral from the first key, value × frames; not of `handles`. */
  integral(frame: number): number;
  /** The cubic Bézier that a stretch between two keys is, as the handles that would draw it. */
  handles(stretch: number): { readonly out: [number, number]; readonly in: [number, number] };
}

/** One stretch between two keys: value = a + b x + c x² + d x³, x in frames from its start. */
interface Cubic {
  readonly from: number;
  readonly to: number;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
}

/** The same as a curve over u from 0 to 1, for both frame and value. */
interface Drawn {
  readonly from: number;
  readonly to: number;
  readonly x: readonly [number, number, number];
  readonly y: readonly [number, number, number, number];
}

type Stretch = Cubic | Drawn;

/** A handle without length reaches so much of its stretch, so that it has a slope. */
const REACH = { none: 1e-9, little: 1e-5 };

/** Least rate of time, as a part of its mean, where two handles overlap. */
const CROSSING = { least: 1e-6, kept: 1e-3 };

/**
 * Compiles keys in rising order of frame, at least one. Before the first and after the last the value is held.
 *
 * `linear` changes evenly, `hold` stays until the next key, `smooth` is a monotone cubic
 * (Fritsch & Carlson 1980) that leaves and arrives at the rate of its neighbours, and at rest where
 * there are none. `handles` is the cubic Bézier in frame and value that its handles draw.
 *
 * @param outside the rate that smooth ends leave and arrive at where there is no neighbour
 */
export function keyedCurve(keys: readonly CurveKey[], outside = 0): KeyedCurve {
  const slopes = smoothSlopes(keys, outside);
  const stretches = keys.slice(1).map((next, i) => stretchBetween(keys[i], next, slopes[i]));
  const first = keys[0];
  const last = keys[keys.length - 1];
  const starts = Float64Array.from(stretches, ({ from }) => from);
  /** The stretch that holds a frame; at a key, the one that begins there, at the last key the last. */
  const stretchAt = (frame: number) => lastAtMost(starts, frame);
  const now = newJet();
  // Most curves are asked millions of times, and most of their stretches are cubics: these are read from one flat array.
  const cubics = new Float64Array(4 * stretches.length);
  const drawn = stretches.map((stretch, i) => {
    if (!('a' in stretch)) return stretch;
    cubics[4 * i] = stretch.a;
    cubics[4 * i + 1] = stretch.b;
    cubics[4 * i + 2] = stretch.c;
    cubics[4 * i + 3] = stretch.d;
    return null;
  });
  const count = stretches.length;
  const from = first.frame;
  const to = last.frame;
  const jet = (frame: number, out: Jet) => {
    if (frame < from || frame > to || count === 0) {
      out.fill(0);
      out[0] = frame < from ? first.value : last.value;
      return;
    }
    const i = stretchAt(frame);
    const bent = drawn[i];
    if (bent === null) {
      const at = 4 * i;
      cubicJet(cubics[at], cubics[at + 1], cubics[at + 2], cubics[at + 3], frame - starts[i], out);
    } else drawnJet(bent, frame, out);
    // A step is taken at its key, and not before it.
    if (frame === to) out[0] = last.value;
  };
  const sums = [0];
  for (const stretch of stretches) {
    sums.push(sums[sums.length - 1] + ('a' in stretch ? integralOf(stretch, stretch.to) : NaN));
  }
  return {
    value(frame) {
      jet(frame, now);
      return now[0];
    },
    rate(frame) {
      jet(frame, now);
      return now[1];
    },
    jet,
    integral(frame) {
      if (frame <= first.frame) return first.value * (frame - first.frame);
      if (frame >= last.frame) return sums[sums.length - 1] + last.value * (frame - last.frame);
      const i = stretchAt(frame);
      return sums[i] + integralOf(stretches[i] as Cubic, frame);
    },
    handles: (i) => handlesOf(stretches[i]),
  };
}

function drawnJet(stretch: Drawn, frame: number, out: Jet): void {
  const { x, y } = stretch;
  cubicJet(0, x[0], x[1], x[2], parameterAt(stretch, frame), across);
  cubicJet(y[0], y[1], y[2], y[3], parameterAt(stretch, frame), out);
  slopeJets(out, across, out);
}

const across = newJet();

/** Parameter of a frame along a drawn stretch: Newton's method between bounds. */
function parameterAt({ from, to, x }: Drawn, frame: number): number {
  const wanted = frame - from;
  return guardedNewton(
    (u, out) => {
      out[0] = u * (x[0] + u * (x[1] + u * x[2])) - wanted;
      out[1] = x[0] + u * (2 * x[1] + 3 * u * x[2]);
    },
    0,
    1,
    wanted / (to - from),
    1e-14 * (to - from),
  );
}

function integralOf({ from, a, b, c, d }: Cubic, frame: number): number {
  const x = frame - from;
  return x * (a + x * (b / 2 + x * (c / 3 + (x * d) / 4)));
}

function handlesOf(stretch: Stretch): { out: [number, number]; in: [number, number] } {
  const frames = stretch.to - stretch.from;
  if ('a' in stretch) {
    const third = frames / 3;
    cubicJet(stretch.a, stretch.b, stretch.c, stretch.d, frames, across);
    return { out: [third, third * stretch.b], in: [-third, -third * across[1]] };
  }
  const { x, y } = stretch;
  return {
    out: [x[0] / 3, y[1] / 3],
    in: [-(x[0] + 2 * x[1] + 3 * x[2]) / 3, -(y[1] + 2 * y[2] + 3 * y[3]) / 3],
  };
}

function stretchBetween(key: CurveKey, next: CurveKey, [leave, arrive]: Slopes): Stretch {
  const span = { from: key.frame, to: next.frame, a: key.value };
  const rise = next.value - key.value;
  const frames = next.frame - key.frame;
  if (key.ease === 'hold') return { ...span, b: 0, c: 0, d: 0 };
  if (key.ease === 'linear') return { ...span, b: rise / frames, c: 0, d: 0 };
  if (key.ease === 'handles') return drawnBetween(key, next);
  return {
    ...span,
    b: leave,
    c: (3 * rise) / frames ** 2 - (2 * leave + arrive) / frames,
    d: (-2 * rise) / frames ** 3 + (leave + arrive) / frames ** 2,
  };
}

function drawnBetween(key: CurveKey, next: CurveKey): Drawn {
  const frames = next.frame - key.frame;
  const { out, into } = reaches(key, next);
  return {
    from: key.frame,
    to: next.frame,
    x: bernstein(0, out[0], frames - into[0], frames).slice(1) as [number, number, number],
    y: bernstein(key.value, key.value + out[1], next.value - into[1], next.value),
  };
}

/**
 * The handles of a stretch, both as forward. Time runs forward along the curve where a + c − 1 ≤ √(a c), a and c
 * being their shares of the stretch; handles that reach too far are shortened along themselves.
 */
function reaches(key: CurveKey, next: CurveKey) {
  const frames = next.frame - key.frame;
  const long = ([reach, rise]: readonly [number, number]): [number, number] =>
    reach > REACH.none * frames ? [reach, rise] : [REACH.little * frames, rise];
  const [inReach, inRise] = next.in ?? [0, 0];
  const out = long(key.out ?? [0, 0]);
  const into = long([-inReach, -inRise]);
  const [a, c] = [out[0] / frames, into[0] / frames];
  const crossing = Math.sqrt(a * c);
  if (a + c - 1 <= crossing * (1 - CROSSING.least)) return { out, into };
  const scale = 1 / (a + c - crossing * (1 - CROSSING.kept));
  const shorter = ([reach, rise]: [number, number]): [number, number] => [reach * scale, rise * scale];
  return { out: shorter(out), into: shorter(into) };
}

/** Bézier ordinates as powers of u. */
function bernstein(p: number, q: number, r: number, s: number): [number, number, number, number] {
  return [p, 3 * (q - p), 3 * (p - 2 * q + r), s - p + 3 * (q - r)];
}

/** Values per frame at which a smooth stretch leaves its key and arrives at the next. */
type Slopes = readonly [number, number];

const UNUSED: Slopes = [0, 0];

/** The same by stretch: smooth ones on end are one curve. Others have none, and their own slope is the one to meet. */
function smoothSlopes(keys: readonly CurveKey[], outside: number): Slopes[] {
  const slopes: Slopes[] = [];
  const last = keys.length - 1;
  while (slopes.length < last) {
    const from = slopes.length;
    let to = from;
    while (to < last && keys[to].ease === 'smooth') to++;
    if (to === from) {
      slopes.push(UNUSED);
      continue;
    }
    const run = keys.slice(from, to + 1);
    const tangents = monotoneTangents(
      run.map((key) => key.frame),
      run.map((key) => key.value),
      slopeAtEnd(keys, from - 1, 'end', outside),
      slopeAtEnd(keys, to, 'start', outside),
    );
    for (let i = 0; i < to - from; i++) slopes.push([tangents[i], tangents[i + 1]]);
  }
  return slopes;
}

/** The slope at an end of the stretch that begins at key i, which is not smooth; 0 for a hold. */
function slopeAtEnd(keys: readonly CurveKey[], i: number, end: 'start' | 'end', outside: number): number {
  if (i < 0 || i >= keys.length - 1) return outside;
  const [key, next] = [keys[i], keys[i + 1]];
  if (key.ease === 'hold') return 0;
  if (key.ease === 'linear') return (next.value - key.value) / (next.frame - key.frame);
  const { out, into } = reaches(key, next);
  return end === 'start' ? out[1] / out[0] : into[1] / into[0];
}
