import type { Outline } from './svg-outline.js';

/** Corners of a curve's box: its ends and the extrema of each coordinate. */
export function boundsOf({ start, cubics }: Outline): [number, number][] {
  const [xs, ys] = [[start[0]], [start[1]]];
  let from: readonly number[] = start;
  for (const [x1, y1, x2, y2, x, y] of cubics) {
    xs.push(x, ...extremesOf(from[0], x1, x2, x));
    ys.push(y, ...extremesOf(from[1], y1, y2, y));
    from = [x, y];
  }
  const [left, top] = [smallest(xs), smallest(ys)];
  const [right, bottom] = [-smallest(xs.map((v) => -v)), -smallest(ys.map((v) => -v))];
  return [
    [left, top],
    [right, top],
    [left, bottom],
    [right, bottom],
  ];
}

function extremesOf(a: number, b: number, c: number, d: number): number[] {
  const [p, q, r] = [3 * (d - 3 * c + 3 * b - a), 6 * (c - 2 * b + a), 3 * (b - a)];
  const root = Math.sqrt(q * q - 4 * p * r);
  const at = Math.abs(p) < 1e-12 ? [-r / q] : [(-q + root) / (2 * p), (-q - root) / (2 * p)];
  return at
    .filter((t) => t > 0 && t < 1)
    .map((t) => (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t * t * c + t ** 3 * d);
}

/** Lists may be longer than a call may have arguments. */
export const smallest = (values: readonly number[]): number =>
  values.reduce((least, value) => Math.min(least, value), Infinity);
