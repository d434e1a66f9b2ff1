/**
 * Tangents of a piecewise cubic through (x, y) that never overshoots: between two values the
 * curve stays between them, and where they are equal it is level.
 *
 * Fritsch & Carlson 1980: three-point slopes, limited to three times the smaller neighbouring
 * secant; the ends take `startSlope` and `endSlope`, limited in the same way.
 *
 * @param x increasing abscissae, n ≥ 2
 * @param y ordinates, n
 * @returns n tangents, in y per x
 */
export function monotoneTangents(
  x: readonly number[],
  y: readonly number[],
  startSlope: number,
  endSlope: number,
): number[] {
  const n = x.length;
  const secants: number[] = [];
  for (let i = 0; i < n - 1; i++) secants.push((y[i + 1] - y[i]) / (x[i + 1] - x[i]));
  const tangents: number[] = [limited(startSlope, secants[0], secants[0])];
  for (let i = 1; i < n - 1; i++) {
    const before = x[i] - x[i - 1];
    const after = x[i + 1] - x[i];
    const slope = (secants[i - 1] * after + secants[i] * before) / (before + after);
    tangents.push(limited(slope, secants[i - 1], secants[i]));
  }
  tangents.push(limited(endSlope, secants[n - 2], secants[n - 2]));
  return tangents;
}

/** The slope, brought inside the region where both neighbouring cubics are monotone. */
function limited(slope: number, before: number, after: number): number {
  if (before * after <= 0) return 0;
  const most = 3 * Math.min(Math.abs(before), Math.abs(after));
  const sign = Math.sign(before);
  return sign * Math.min(most, Math.max(0, slope * sign));
}
