import { gaussLegendreRule } from './gauss-legendre.js';

/** How many places of a stretch a function is looked at. */
export const LOOKS = 5;
/** Where they are, from 0 to 1: Gauss and Legendre's, so that the integral over the whole is that of their rule. */
export const LOOKS_AT = Float64Array.from(gaussLegendreRule(LOOKS).nodes, (node) => (node + 1) / 2);

/** By place the polynomial that is 1 there and 0 at the others: coefficients of 1, t, t² … */
const BASES = Array.from(LOOKS_AT, (own, i) => {
  let basis = [1];
  LOOKS_AT.forEach((other, k) => {
    if (k === i) return;
    const scale = 1 / (own - other);
    basis = [...basis, 0].map((_, n) => scale * ((basis[n - 1] ?? 0) - other * (basis[n] ?? 0)));
  });
  return basis;
});

/** Writes the coefficients of the polynomial through values at {@link LOOKS_AT} into `out[at …]`. */
export function polynomialThrough(values: ArrayLike<number>, out: Float64Array, at: number): void {
  for (let n = 0; n < LOOKS; n++) {
    let sum = 0;
    for (let i = 0; i < LOOKS; i++) sum += values[i] * BASES[i][n];
    out[at + n] = sum;
  }
}

/** The value of such a polynomial at t. */
export function polynomialAt(coefficients: Float64Array, at: number, t: number): number {
  let value = 0;
  for (let n = LOOKS - 1; n >= 0; n--) value = value * t + coefficients[at + n];
  return value;
}

/** Its integral from 0 to t. */
export function polynomialIntegral(coefficients: Float64Array, at: number, t: number): number {
  let value = 0;
  for (let n = LOOKS - 1; n >= 0; n--) value = value * t + coefficients[at + n] / (n + 1);
  return value * t;
}
