import { SAMPLES, polynomialAt, polynomialIntegral, polynomialThrough } from '../math/stretch-polynomial.js';
import { RATES, type ChassisRates } from './chassis-rates.js';

/** A wheel that rolls: how far, and how it is steered to do so. */
export interface WheelTravel {
  /** Metres rolled since the start of the path (or of the range), at a progress; negative in reverse. */
  rolled(progress: number): number;
  /** Metres rolled per unit of progress. */
  speed(progress: number): number;
  /** The angle at which it would not slip, radians, positive to the left. */
  steer(progress: number): number;
  /** Metres of sideways slip per unit of progress: nothing where it steers. */
  slip(progress: number): number;
}

/** Polynomials of a stretch: of what is rolled, and of what goes by ahead and to the left. */
const ROLLED = 0;
const AHEAD = SAMPLES;
const LEFT = 2 * SAMPLES;

/**
 * Rolling without sliding: the integral of the contact point's own speed, ahead where the wheel is fixed, and along
 * its own steered way where it steers, in space (so up hills too). Between the places where bends may change, the speed is
 * the polynomial through six places of a stretch, so that both it and its integral are had at once anywhere. On a circle of radius R a wheel y to the left has rolled s (1 − y / R).
 *
 * @param contact metres ahead, to the left and up of the rider's origin
 */
export function compileWheel(
  rates: ChassisRates,
  contact: readonly [number, number, number],
  steers: boolean,
): WheelTravel {
  const { edges, chassis } = rates;
  const { from, to, closed } = chassis;
  const length = to - from;
  const built = new Float64Array(edges.length * 3 * SAMPLES);
  const cached = new Uint8Array(edges.length);
  const [rolling, aheads, lefts] = [0, 1, 2].map(() => new Float64Array(SAMPLES));
  /** Where the polynomials of a stretch begin. */
  const polynomials = (i: number): number => {
    const to = i * 3 * SAMPLES;
    if (cached[i] === 1) return to;
    cached[i] = 1;
    const own = rates.all;
    let at = rates.at(i);
    for (let k = 0; k < SAMPLES; k++, at += RATES) {
      let ahead = own[at];
      let left = own[at + 1];
      for (let part = 0; part < 3; part++) {
        ahead += contact[part] * own[at + 2 + 2 * part];
        left += contact[part] * own[at + 3 + 2 * part];
      }
      rolling[k] = steers ? Math.sign(ahead || 1) * Math.sqrt(ahead * ahead + left * left) : ahead;
      aheads[k] = ahead;
      lefts[k] = left;
    }
    polynomialThrough(rolling, built, to + ROLLED);
    polynomialThrough(aheads, built, to + AHEAD);
    polynomialThrough(lefts, built, to + LEFT);
    return to;
  };
  /** What is rolled up to each edge, as far as it was asked for. */
  const sums: number[] = [0];
  const upTo = (edge: number): number => {
    for (let i = sums.length; i <= edge; i++)
      sums.push(
        sums[i - 1] + (edges[i] - edges[i - 1]) * polynomialIntegral(built, polynomials(i - 1) + ROLLED, 1),
      );
    return sums[edge];
  };
  let stretch = 0;
  let lap = 0;
  /** How far along its stretch a progress is; which stretch and lap that is, is told beside. */
  const find = (progress: number): number => {
    lap = closed ? Math.floor((progress - from) / length) : 0;
    const place = Math.min(to, Math.max(from, progress - lap * length));
    stretch = Math.min(edges.length - 2, lastAtMost(edges, place));
    return (place - edges[stretch]) / (edges[stretch + 1] - edges[stretch]);
  };
  return {
    rolled(progress) {
      const t = find(progress);
      const i = stretch;
      const laps = lap;
      const whole = laps === 0 ? 0 : laps * upTo(edges.length - 1);
      const rest =
        t === 0 ? 0 : (edges[i + 1] - edges[i]) * polynomialIntegral(built, polynomials(i) + ROLLED, t);
      return whole + upTo(i) + rest;
    },
    speed(progress) {
      const t = find(progress);
      return polynomialAt(built, polynomials(stretch) + ROLLED, t);
    },
    steer(progress) {
      const t = find(progress);
      const own = polynomials(stretch);
      const ahead = polynomialAt(built, own + AHEAD, t);
      const left = polynomialAt(built, own + LEFT, t);
      if (Math.hypot(ahead, left) < 1e-12) return 0;
      return ahead < 0 ? Math.atan2(-left, -ahead) : Math.atan2(left, ahead);
    },
    slip(progress) {
      if (steers) return 0;
      const t = find(progress);
      return polynomialAt(built, polynomials(stretch) + LEFT, t);
    },
  };
}

function lastAtMost(edges: Float64Array, place: number): number {
  let low = 0;
  let high = edges.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (edges[middle] <= place) low = middle;
    else high = middle - 1;
  }
  return low;
}
