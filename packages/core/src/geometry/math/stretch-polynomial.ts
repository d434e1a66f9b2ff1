/** Samples of a function in a stretch. */
export const SAMPLES = 6;
/** Ends are sampled this part of a stretch inside: at a joint the next one may bend otherwise. */
const INSIDE = 1e-7;
/** Positions from 0 to 1: Chebyshev points with both ends, between which a polynomial does not oscillate. */
export const SAMPLE_AT = Float64Array.from({ length: SAMPLES }, (_, i) => {
  const at = (1 - Math.cos((Math.PI * i) / (SAMPLES - 1))) / 2;
  return Math.min(1 - INSIDE, Math.max(INSIDE, at));
});

/** By place and power of t the polynomial that is 1 there and 0 at the others. */
const BASES = Float64Array.from(
  Array.from(SAMPLE_AT, (own, i) => {
    let basis = [1];
    SAMPLE_AT.forEach((other, k) => {
      if (k === i) return;
      const scale = 1 / (own - other);
      basis = [...basis, 0].map((_, n) => scale * ((basis[n - 1] ?? 0) - other * (basis[n] ?? 0)));
    });
    return basis;
  }).flat(),
);

/** By place what each value adds to the slope there. */
const SLOPES = Float64Array.from(
  Array.from(SAMPLE_AT, (t) =>
    Array.from(SAMPLE_AT, (_, i) =>
      BASES.subarray(SAMPLES * i, SAMPLES * (i + 1)).reduce(
        (sum, c, n) => sum + (n === 0 ? 0 : n * c * t ** (n - 1)),
        0,
      ),
    ),
  ).flat(),
);

/** Slope, per stretch, at one of the samples, of the polynomial through values that are `step` numbers apart from `at` on. */
export function slopeAt(values: Float64Array, at: number, step: number, place: number): number {
  const row = SAMPLES * place;
  let sum = 0;
  for (let i = 0; i < SAMPLES; i++) sum += SLOPES[row + i] * values[at + i * step];
  return sum;
}

/** Writes the coefficients of the polynomial through values at {@link SAMPLE_AT} into `out[at …]`. */
export function polynomialThrough(values: Float64Array, out: Float64Array, at: number): void {
  for (let n = 0; n < SAMPLES; n++) {
    let sum = 0;
    for (let i = 0; i < SAMPLES; i++) sum += values[i] * BASES[SAMPLES * i + n];
    out[at + n] = sum;
  }
}

/** Value of such a polynomial at t. */
export function polynomialAt(coefficients: Float64Array, at: number, t: number): number {
  let value = 0;
  for (let n = SAMPLES - 1; n >= 0; n--) value = value * t + coefficients[at + n];
  return value;
}

/** Its integral from 0 to t. */
export function polynomialIntegral(coefficients: Float64Array, at: number, t: number): number {
  let value = 0;
  for (let n = SAMPLES - 1; n >= 0; n--) value = value * t + coefficients[at + n] / (n + 1);
  return value * t;
}
