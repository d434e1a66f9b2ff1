import { lastAtMost } from '../../geometry/math/search.js';
import { gaussLegendreRule } from '../../geometry/math/gauss-legendre.js';
import type { Jet } from '../../geometry/math/jet.js';
import { keyedCurve, type CurveKey } from '../../geometry/math/keyed-curve.js';
import type { Track } from './track.js';

/** A speed at every place, and how long it takes from place to place. */
export interface SpeedField {
  /** The speed at a place and its derivatives by metre. */
  jet(place: number, out: Jet): void;
  /** Seconds from some fixed place on the way. */
  timeAt(place: number): number;
  /** Distance at a time, metres. */
  placeAt(time: number): number;
}

/** Within a cell speeds differ by no more than this factor, which makes the rule below exact to rounding. */
const MOST_CHANGE = 1.4;
const RULE = gaussLegendreRule(8);

/**
 * Solves ds/dt = v(s) for speeds keyed by distance, none of them 0 and all of one sign.
 *
 * The time along each cell is ∫ ds / v by Gauss-Legendre; where one is at a time is found by Newton's method
 * in its cell. Beyond the keys the speed stays. On a closed path keys that lie within one lap hold in every lap.
 *
 * @param keys in rising order, their `frame` a distance in metres
 */
export function speedField(keys: readonly CurveKey[], { length, closed }: Track): SpeedField {
  if (keys[0].value < 0) {
    const forward = keys.map((key) => ({ ...key, value: -key.value }));
    return backward(speedField(forward, { length, closed }));
  }
  const recurs = closed && keys[keys.length - 1].frame - keys[0].frame < length;
  const curve = keyedCurve(recurs ? threeLaps(keys, length) : keys);
  const first = keys[0].frame;
  const last = recurs ? first + length : keys[keys.length - 1].frame;
  const speedAt = (place: number) => curve.value(place);
  const seconds = (from: number, to: number) => {
    const [middle, half] = [(from + to) / 2, (to - from) / 2];
    let sum = 0;
    for (let k = 0; k < RULE.nodes.length; k++)
      sum += RULE.weights[k] / speedAt(middle + half * RULE.nodes[k]);
    return sum * half;
  };
  const borders = recurs ? [...keys.map(({ frame }) => frame), last] : keys.map(({ frame }) => frame);
  const places = cellsBetween(borders, speedAt);
  const times = [0];
  for (let i = 1; i < places.length; i++) times.push(times[i - 1] + seconds(places[i - 1], places[i]));
  const whole = times[times.length - 1];

  const timeWithin = (place: number) => {
    const i = cellOf(places, place);
    return times[i] + seconds(places[i], place);
  };
  const placeWithin = (time: number) => {
    const i = cellOf(times, time);
    let place = places[i] + (time - times[i]) * speedAt(places[i]);
    const end = places[i + 1] ?? places[i];
    for (let step = 0; step < 20; step++) {
      const off = time - times[i] - seconds(places[i], place);
      const next = Math.min(end, Math.max(places[i], place + off * speedAt(place)));
      if (Math.abs(next - place) <= 1e-14 * (1 + Math.abs(place))) break;
      place = next;
    }
    return place;
  };
  if (recurs) {
    const lap = (value: number, unit: number) => Math.floor(value / unit);
    return {
      jet: (place, out) => curve.jet(place - lap(place - first, length) * length, out),
      timeAt(place) {
        const n = lap(place - first, length);
        return n * whole + timeWithin(place - n * length);
      },
      placeAt(time) {
        const n = lap(time, whole);
        return n * length + placeWithin(time - n * whole);
      },
    };
  }
  const [entry, exit] = [keys[0].value, keys[keys.length - 1].value];
  return {
    jet: (place, out) => curve.jet(place, out),
    timeAt(place) {
      if (place <= first) return (place - first) / entry;
      if (place >= last) return whole + (place - last) / exit;
      return timeWithin(place);
    },
    placeAt(time) {
      if (time <= 0) return first + time * entry;
      if (time >= whole) return last + (time - whole) * exit;
      return placeWithin(time);
    },
  };
}

/** Cell borders such that the speed changes little within each; between two keys it is monotone. */
function cellsBetween(borders: readonly number[], speedAt: (place: number) => number): number[] {
  const places = [borders[0]];
  for (let i = 1; i < borders.length; i++) {
    const [from, to] = [borders[i - 1], borders[i]];
    // A hair inside, so that a step at a key belongs to its own side.
    const inside = 1e-9 * (to - from);
    const [a, b] = [speedAt(from + inside), speedAt(to - inside)];
    const ratio = Math.max(a, b) / Math.min(a, b);
    // Even in speed's logarithm is enough: each cell is halved until its own ends are near.
    const halve = (low: number, high: number, depth: number) => {
      const [v, w] = [speedAt(low + inside), speedAt(high - inside)];
      if (depth < 40 && (Math.max(v, w) / Math.min(v, w) > MOST_CHANGE || (depth < 3 && ratio > 1))) {
        const middle = (low + high) / 2;
        halve(low, middle, depth + 1);
        halve(middle, high, depth + 1);
      } else places.push(high);
    };
    halve(from, to, 0);
  }
  return places;
}

const cellOf = (borders: readonly number[], value: number) =>
  lastAtMost(borders, value, Math.max(1, borders.length - 1));

/** The keys of a lap with those of the lap before and after, so that smooth ones run through the first point. */
function threeLaps(keys: readonly CurveKey[], length: number): CurveKey[] {
  return [-1, 0, 1, 2].flatMap((n) => keys.map((key) => ({ ...key, frame: key.frame + n * length })));
}

/** The same speeds the other way: what was later is earlier. */
function backward(field: SpeedField): SpeedField {
  return {
    jet(place, out) {
      field.jet(place, out);
      for (let k = 0; k < out.length; k++) out[k] = -out[k];
    },
    timeAt: (place) => -field.timeAt(place),
    placeAt: (time) => field.placeAt(-time),
  };
}
