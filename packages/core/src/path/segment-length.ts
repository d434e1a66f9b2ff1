import { gaussLegendreRule } from '../math/gauss-legendre.js';
import type { Segments } from './segments.js';

const { nodes, weights } = gaussLegendreRule(12);

/** |dr/du| of segment i at u, metres per unit of u. */
export function parameterSpeed(segments: Segments, i: number, u: number): number {
  const c = segments.coefficients;
  const at = 12 * i;
  const x = c[at + 1] + u * (2 * c[at + 2] + 3 * u * c[at + 3]);
  const y = c[at + 5] + u * (2 * c[at + 6] + 3 * u * c[at + 7]);
  const z = c[at + 9] + u * (2 * c[at + 10] + 3 * u * c[at + 11]);
  return Math.sqrt(x * x + y * y + z * z);
}

/** d|dr/du|/du of segment i at u; 0 where the speed itself is 0. */
export function parameterAcceleration(segments: Segments, i: number, u: number): number {
  const c = segments.coefficients;
  const at = 12 * i;
  let dot = 0;
  let square = 0;
  for (let k = at; k < at + 12; k += 4) {
    const first = c[k + 1] + u * (2 * c[k + 2] + 3 * u * c[k + 3]);
    dot += first * (2 * c[k + 2] + 6 * u * c[k + 3]);
    square += first * first;
  }
  return square > 0 ? dot / Math.sqrt(square) : 0;
}

/** Arc length of segment i between u0 and u1 by one 12-point Gauss-Legendre rule. */
export function lengthOnce(segments: Segments, i: number, u0: number, u1: number): number {
  const half = (u1 - u0) / 2;
  const middle = (u0 + u1) / 2;
  let sum = 0;
  for (let k = 0; k < 12; k++) {
    sum += weights[k] * parameterSpeed(segments, i, middle + half * nodes[k]);
  }
  return sum * half;
}
