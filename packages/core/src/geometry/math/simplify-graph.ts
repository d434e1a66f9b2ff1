import { keepWithin } from './keep-within.js';

/**
 * Which of the points of a graph have to stay for straight lines between them to be within a tolerance of all, with the
 * distance taken straight up or down.
 *
 * @param x rising abscissae
 * @param y ordinates
 * @returns indexes in rising order, first and last among them
 */
export function simplifyGraph(x: ArrayLike<number>, y: ArrayLike<number>, tolerance: number): number[] {
  const off = (from: number, to: number, i: number) =>
    Math.abs(y[i] - y[from] - ((y[to] - y[from]) / (x[to] - x[from])) * (x[i] - x[from]));
  return keepWithin(x.length, off, tolerance);
}
