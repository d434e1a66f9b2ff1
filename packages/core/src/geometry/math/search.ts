/**
 * Number at which a condition begins to hold, by bisection: between `low`, where it does not, and `high`, where it
 * does.
 *
 * @returns the nearest number found at which it holds
 */
export function bisect(holds: (x: number) => boolean, low: number, high: number, halvings = 60): number {
  let [a, b] = [low, high];
  for (let step = 0; step < halvings; step++) {
    const middle = (a + b) / 2;
    if (middle === a || middle === b) break;
    if (holds(middle)) b = middle;
    else a = middle;
  }
  return b;
}

/** Writes a function's value and its slope at x into the two numbers of `out`. */
export type ValueAndSlope = (x: number, out: [number, number]) => void;

/**
 * The root of a function that is below 0 at `low` and above at `high`, by Newton's steps; a step that would leave the
 * known bounds is replaced by bisection.
 *
 * @param start     where to begin, between the bounds
 * @param tolerance how near to 0 the value has to come
 * @param narrow    bounds no further apart end it as well: where a value has noise it may never come as near as that
 */
export function guardedNewton(
  f: ValueAndSlope,
  low: number,
  high: number,
  start: number,
  tolerance: number,
  narrow = 0,
): number {
  let [a, b, x] = [low, high, start];
  for (let step = 0; step < MOST_STEPS; step++) {
    f(x, found);
    const [value, slope] = found;
    if (Math.abs(value) <= tolerance) break;
    if (value > 0) b = x;
    else a = x;
    if (b - a <= narrow) break;
    const next = x - value / slope;
    x = next > a && next < b ? next : (a + b) / 2;
  }
  return x;
}

const MOST_STEPS = 60;
const found: [number, number] = [0, 0];

/** The first index whose value is not below a number; the length where all are. Values rise. */
export function lowerBound(values: ArrayLike<number>, value: number): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle] < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The last of `count` entries whose value is at most a number; the first where all are above. Values rise.
 *
 * @param stride numbers from one entry to the next
 */
export function lastAtMost(
  values: ArrayLike<number>,
  value: number,
  count = values.length,
  stride = 1,
): number {
  let low = 0;
  let high = Math.max(0, count - 1);
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (values[stride * middle] <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}
