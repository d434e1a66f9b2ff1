import { gaussLegendreRule } from '../math/gauss-legendre.js';
import type { Segments } from './segments.js';

const POINTS = 12;
const { nodes, weights } = gaussLegendreRule(POINTS);

/** Arc length of segment i between u0 and u1 by one 12-point Gauss-Legendre rule. */
export function lengthOnce(segments: Segments, i: number, u0: number, u1: number): number {
  const half = (u1 - u0) / 2;
  const middle = (u0 + u1) / 2;
  let sum = 0;
  for (let k = 0; k < POINTS; k++) sum += weights[k] * segments.speed(i, middle + half * nodes[k]);
  return sum * half;
}
