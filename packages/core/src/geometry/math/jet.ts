/** A value and its first three derivatives: four numbers. */
export type Jet = Float64Array;

/** Writes a function's value and its first three derivatives at x. */
export type JetAt = (x: number, out: Jet) => void;

export const newJet = (): Jet => new Float64Array(4);

/**
 * The derivatives of f(g(x)), from those of f at g(x) and of g at x (Faà di Bruno's formula).
 * `out` may be either of them.
 */
export function composeJets(f: Jet, g: Jet, out: Jet): void {
  const [value, f1, f2, f3] = f;
  const [, g1, g2, g3] = g;
  out[0] = value;
  out[1] = f1 * g1;
  out[2] = f2 * g1 * g1 + f1 * g2;
  out[3] = f3 * g1 * g1 * g1 + 3 * f2 * g1 * g2 + f1 * g3;
}

/** The derivatives of y over x where both run along u (dx/du must not be 0). `out` may be either of them. */
export function slopeJets(y: Jet, x: Jet, out: Jet): void {
  const [value, y1, y2, y3] = y;
  const [, x1, x2, x3] = x;
  out[0] = value;
  out[1] = y1 / x1;
  out[2] = (y2 * x1 - y1 * x2) / (x1 * x1 * x1);
  out[3] = (x1 * (x1 * y3 - y1 * x3) - 3 * x2 * (x1 * y2 - y1 * x2)) / (x1 * x1 * x1 * x1 * x1);
}

/** Writes the value and derivatives of a + b x + c x² + d x³. */
export function cubicJet(a: number, b: number, c: number, d: number, x: number, out: Jet): void {
  out[0] = a + x * (b + x * (c + x * d));
  out[1] = b + x * (2 * c + 3 * x * d);
  out[2] = 2 * c + 6 * x * d;
  out[3] = 6 * d;
}
