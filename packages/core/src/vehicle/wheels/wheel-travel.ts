import { gaussLegendreRule } from '../../geometry/math/gauss-legendre.js';
import { bisect, lastAtMost } from '../../geometry/math/search.js';
import {
  SAMPLES,
  SAMPLE_AT,
  polynomialAt,
  polynomialIntegral,
  polynomialThrough,
} from '../../geometry/math/stretch-polynomial.js';
import type { ChassisTrack } from '../../motion/ride/chassis-motion.js';
import { ChassisRates, RATES } from './chassis-rates.js';

/** A wheel that rolls: how far, and how it is steered to do so. */
export interface WheelTravel {
  /** Metres rolled since the start of the path (or of the range), at a progress; negative in reverse and before that. */
  rolled(progress: number): number;
  /** Metres rolled per unit of progress. */
  speed(progress: number): number;
  /** The angle at which it would not slip, radians, positive to the left. */
  steer(progress: number): number;
  /** Metres of sideways slip per unit of progress: nothing where it steers. */
  slip(progress: number): number;
}

/** Cache of a track: its rates, and by contact point and steering the wheels that roll along it. */
interface Rolled {
  readonly rates: ChassisRates;
  readonly travels: Map<string, WheelTravel>;
}

const rolled = new WeakMap<ChassisTrack, Rolled>();

/**
 * A wheel on a track, compiled once: wheels side by side on one axle often share a position (twins, or one mesh for
 * both), and riders of one kind roll alike.
 *
 * @param contact metres ahead, to the left and up of the rider's origin
 */
export function wheelTravel(
  way: ChassisTrack,
  contact: readonly [number, number, number],
  steers: boolean,
): WheelTravel {
  const known = rolled.get(way) ?? { rates: new ChassisRates(way), travels: new Map<string, WheelTravel>() };
  rolled.set(way, known);
  const key = `${contact.join()} ${steers}`;
  const travel = known.travels.get(key) ?? compileWheel(known.rates, contact, steers);
  known.travels.set(key, travel);
  return travel;
}

/** Polynomials of a stretch: of the rolled distance, and of the travel ahead and to the left. */
const ROLLED = 0;
const AHEAD = SAMPLES;
const LEFT = 2 * SAMPLES;
const SIZE = 3 * SAMPLES;

/** Rolling that is no polynomial is summed in this many pieces, by this rule. */
const PIECES = 4;
const rule = gaussLegendreRule(8);

/** Position of a progress: lap, stretch, and part of that, 0 to 1. */
interface PlaceInStretch {
  lap: number;
  stretch: number;
  part: number;
}

/**
 * Rolling without sliding: the integral of the contact point's own speed, ahead where the wheel is fixed, and along
 * its own steered way where it steers, in space (so up hills too). Between the places where bends may change, the speed is
 * the polynomial through six places of a stretch, so that both it and its integral are had at once anywhere. On a circle of radius
 * R a wheel y to the left has rolled s (1 − y / R).
 */
function compileWheel(
  rates: ChassisRates,
  contact: readonly [number, number, number],
  steers: boolean,
): WheelTravel {
  const polynomials = new WheelPolynomials(rates, contact, steers);
  const at: PlaceInStretch = { lap: 0, stretch: 0, part: 0 };
  return {
    rolled(progress) {
      polynomials.find(progress, at);
      return polynomials.rolledTo(at);
    },
    speed(progress) {
      polynomials.find(progress, at);
      return polynomials.speed(at);
    },
    steer(progress) {
      polynomials.find(progress, at);
      const ahead = polynomials.value(at, AHEAD);
      const left = polynomials.value(at, LEFT);
      if (ahead * ahead + left * left < 1e-24) return 0;
      return ahead < 0 ? Math.atan2(-left, -ahead) : Math.atan2(left, ahead);
    },
    slip(progress) {
      if (steers) return 0;
      polynomials.find(progress, at);
      return polynomials.value(at, LEFT);
    },
  };
}

/** Motion of a wheel's contact point, stretch by stretch; each is computed once, and only where needed. */
class WheelPolynomials {
  private readonly numbers: Float64Array;
  private readonly known: Uint8Array;
  /** Rolled distance from the origin to each edge after it, and to each before it, as far as it was asked for. */
  private readonly after: number[] = [0];
  private readonly before: number[] = [0];
  private readonly samples = [0, 1, 2].map(() => new Float64Array(SAMPLES));
  /** Parts of a stretch at which a steered wheel stops at a right angle: its rolled distance has no polynomial there. */
  private readonly turns = new Map<number, readonly number[]>();
  /** The edge at which nothing has been rolled yet. */
  private readonly origin: number;

  constructor(
    private readonly rates: ChassisRates,
    private readonly contact: readonly [number, number, number],
    private readonly steers: boolean,
  ) {
    const { edges, chassis } = rates;
    this.numbers = new Float64Array(edges.length * SIZE);
    this.known = new Uint8Array(edges.length);
    this.origin = lastAtMost(edges, chassis.origin);
  }

  find(progress: number, out: PlaceInStretch): void {
    const { edges, chassis } = this.rates;
    const { from, to, closed } = chassis;
    out.lap = closed ? Math.floor((progress - from) / (to - from)) : 0;
    const place = Math.min(to, Math.max(from, progress - out.lap * (to - from)));
    const stretch = lastAtMost(edges, place, edges.length - 1);
    out.stretch = stretch;
    out.part = (place - edges[stretch]) / (edges[stretch + 1] - edges[stretch]);
  }

  value({ stretch, part }: PlaceInStretch, which: number): number {
    return polynomialAt(this.numbers, this.begins(stretch) + which, part);
  }

  /** Metres rolled per unit of progress. */
  speed(at: PlaceInStretch): number {
    const begins = this.begins(at.stretch);
    return this.turns.has(at.stretch)
      ? this.steered(begins, at.part)
      : polynomialAt(this.numbers, begins + ROLLED, at.part);
  }

  rolledTo({ lap, stretch, part }: PlaceInStretch): number {
    const { edges } = this.rates;
    const laps = lap === 0 ? 0 : lap * this.sumTo(edges.length - 1);
    return laps + this.sumTo(stretch) + (part === 0 ? 0 : this.rolledIn(stretch, part));
  }

  private rolledIn(stretch: number, part: number): number {
    const { edges } = this.rates;
    const length = edges[stretch + 1] - edges[stretch];
    const begins = this.begins(stretch);
    const turns = this.turns.get(stretch);
    return (
      length *
      (turns
        ? this.rolledTurning(begins, turns, part)
        : polynomialIntegral(this.numbers, begins + ROLLED, part))
    );
  }

  /** The speed of a steered wheel along its own way, from how its contact point moves. */
  private steered(begins: number, part: number): number {
    const ahead = polynomialAt(this.numbers, begins + AHEAD, part);
    const left = polynomialAt(this.numbers, begins + LEFT, part);
    return Math.sign(ahead) * Math.sqrt(ahead * ahead + left * left);
  }

  /** Its integral up to a part of a stretch, piece by piece between the places where it jumps to as fast the other way. */
  private rolledTurning(begins: number, turns: readonly number[], part: number): number {
    let sum = 0;
    let from = 0;
    for (const turn of [...turns, 1]) {
      const piece = (Math.min(turn, part) - from) / PIECES;
      if (piece <= 0) break;
      for (let i = 0; i < PIECES; i++)
        rule.nodes.forEach((node, k) => {
          const at = from + piece * (i + (node + 1) / 2);
          sum += (piece / 2) * rule.weights[k] * this.steered(begins, at);
        });
      from = turn;
    }
    return sum;
  }

  private sumTo(edge: number): number {
    const { after, before, origin } = this;
    if (edge >= origin) {
      for (let i = after.length; i <= edge - origin; i++)
        after.push(after[i - 1] + this.rolledIn(origin + i - 1, 1));
      return after[edge - origin];
    }
    for (let i = before.length; i <= origin - edge; i++)
      before.push(before[i - 1] - this.rolledIn(origin - i, 1));
    return before[origin - edge];
  }

  /** Begin of a stretch's polynomials. */
  private begins(stretch: number): number {
    const to = stretch * SIZE;
    if (this.known[stretch] === 1) return to;
    this.known[stretch] = 1;
    const { contact, numbers, rates } = this;
    const [rolling, aheads, lefts] = this.samples;
    let at = rates.at(stretch);
    const own = rates.all;
    for (let k = 0; k < SAMPLES; k++, at += RATES) {
      let ahead = own[at];
      let left = own[at + 1];
      for (let part = 0; part < 3; part++) {
        ahead += contact[part] * own[at + 2 + 2 * part];
        left += contact[part] * own[at + 3 + 2 * part];
      }
      rolling[k] = this.steers ? Math.sign(ahead || 1) * Math.sqrt(ahead * ahead + left * left) : ahead;
      aheads[k] = ahead;
      lefts[k] = left;
    }
    polynomialThrough(rolling, numbers, to + ROLLED);
    polynomialThrough(aheads, numbers, to + AHEAD);
    polynomialThrough(lefts, numbers, to + LEFT);
    if (this.steers) this.noteTurns(stretch, to);
    return to;
  }

  private noteTurns(stretch: number, begins: number): void {
    const aheads = this.samples[1];
    const turns: number[] = [];
    for (let k = 1; k < SAMPLES; k++) {
      const comes = aheads[k] >= 0;
      if (aheads[k - 1] >= 0 === comes) continue;
      const has = (part: number) => polynomialAt(this.numbers, begins + AHEAD, part) >= 0 === comes;
      turns.push(bisect(has, SAMPLE_AT[k - 1], SAMPLE_AT[k]));
    }
    if (turns.length > 0) this.turns.set(stretch, turns);
  }
}
