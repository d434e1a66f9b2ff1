import { distance3, type Vec3 } from '../math/vec.js';

/**
 * The derivative at `here` of the Catmull-Rom curve through before, here and after, per unit of
 * its own knot spacing (Barry & Goldman 1988; Yuksel, Schaefer, Keyser 2011).
 *
 * @param alpha knot spacing = chord^alpha: 0 uniform, 0.5 centripetal, 1 chordal
 */
export function catmullRomSlope(before: Vec3, here: Vec3, after: Vec3, alpha: number): Vec3 {
  const t0 = knotSpacing(before, here, alpha);
  const t1 = knotSpacing(here, after, alpha);
  const slope: Vec3 = [0, 0, 0];
  for (let k = 0; k < 3; k++) {
    slope[k] = (here[k] - before[k]) / t0 - (after[k] - before[k]) / (t0 + t1) + (after[k] - here[k]) / t1;
  }
  return slope;
}

/** The knot spacing between two points that are apart. */
export function knotSpacing(a: Vec3, b: Vec3, alpha: number): number {
  return Math.pow(distance3(a, b), alpha);
}

/** The point as far beyond `end` as `inner` is before it: the missing neighbour of an open end. */
export function reflectedNeighbour(end: Vec3, inner: Vec3): Vec3 {
  return [2 * end[0] - inner[0], 2 * end[1] - inner[1], 2 * end[2] - inner[2]];
}
