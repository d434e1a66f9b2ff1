import type { Vec3 } from '../math/vec.js';

/** Writes where something is held, metres, at a distance along its path. */
export type Pin = (s: number, out: Vec3) => void;

/** How a bar is pulled along. */
export interface Pulled {
  /** Metres, of the path. */
  readonly length: number;
  readonly closed: boolean;
  /** From the pin to the axle that follows, metres, above 0. */
  readonly bar: number;
  /** −1 where it is pulled along the path backwards. */
  readonly sense: 1 | -1;
}

/** Steps a length of the bar; the error of a fourth-order step is then below 1e-8 rad. */
const PER_BAR = 32;
const FEWEST = 64;
const MOST = 1 << 18;
/** Before an open path and after it the bar is followed for so many of its lengths; after that it is in line. */
const BEYOND = 12;
/** Rounds after which a closed path's trail meets itself, at the latest. */
const ROUNDS = 60;
const NEAR = 1e-4;

/**
 * The heading of a bar whose front is pulled along and whose rear axle rolls where it points, radians: 0 along +Z, growing to
 * the left. dψ/ds = sin(θ − ψ) / bar, the tractrix of the pin's way in plan (θ its direction), by Runge-Kutta
 * steps and cubics between them. On a closed path it is the trail that repeats with every lap; on an open one it begins in line, some
 * lengths of the bar before the path does.
 */
export function compileTrail(pin: Pin, pulled: Pulled): (s: number) => number {
  const { closed, bar, sense } = pulled;
  const lead = closed ? 0 : BEYOND * bar;
  // From here on, as pulled: 0 is where the trail begins.
  const length = pulled.length + 2 * lead;
  const count = Math.min(MOST, Math.max(FEWEST, Math.ceil((PER_BAR * length) / bar)));
  const step = length / count;
  const before: Vec3 = [0, 0, 0];
  const after: Vec3 = [0, 0, 0];
  /** Where the pin goes, and how far in plan, per metre pulled. */
  const way = (gone: number): [number, number] => {
    const s = sense > 0 ? gone - lead : length - lead - gone;
    pin(s - NEAR, before);
    pin(s + NEAR, after);
    const scale = sense / (2 * NEAR);
    const [x, z] = [(after[0] - before[0]) * scale, (after[2] - before[2]) * scale];
    return [Math.atan2(x, z), Math.hypot(x, z)];
  };
  // Every half step is asked for by two of the four slopes.
  const ways = Array.from({ length: 2 * count + 1 }, (_, i) => way((i * step) / 2));
  const slope = (i: number, psi: number) => (ways[i][1] * Math.sin(ways[i][0] - psi)) / bar;
  const headings = new Float64Array(count + 1);
  const run = (start: number) => {
    headings[0] = start;
    for (let i = 0; i < count; i++) {
      const psi = headings[i];
      const a = slope(2 * i, psi);
      const b = slope(2 * i + 1, psi + (step / 2) * a);
      const c = slope(2 * i + 1, psi + (step / 2) * b);
      const d = slope(2 * i + 2, psi + step * c);
      headings[i + 1] = psi + (step / 6) * (a + 2 * b + 2 * c + d);
    }
  };
  run(ways[0][0]);
  let turn = 0;
  if (closed) {
    for (let round = 0; round < ROUNDS; round++) {
      const end = headings[count];
      turn = 2 * Math.PI * Math.round((end - headings[0]) / (2 * Math.PI));
      if (Math.abs(end - headings[0] - turn) < 1e-13) break;
      run(end - turn);
    }
  }
  return (s) => {
    const gone = sense > 0 ? s + lead : length - lead - s;
    const lap = closed ? Math.floor(gone / length) : 0;
    const place = Math.min(count, Math.max(0, (gone - lap * length) / step));
    const i = Math.min(count - 1, Math.floor(place));
    const t = place - i;
    const [p, q] = [headings[i], headings[i + 1]];
    const [dp, dq] = [step * slope(2 * i, p), step * slope(2 * i + 2, q)];
    const rest = q - p;
    // Hermite's cubic.
    return lap * turn + p + t * (dp + t * (3 * rest - 2 * dp - dq + t * (dp + dq - 2 * rest)));
  };
}
