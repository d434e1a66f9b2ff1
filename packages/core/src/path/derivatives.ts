import type { Vec3Like } from '../math/vec.js';
import type { Segments } from './segments.js';

/** Splits a path parameter (segment + u) so that the very end stays on the last segment. */
function segmentOf(segments: Segments, parameter: number): number {
  return Math.min(segments.count - 1, Math.floor(parameter));
}

/** The position at a path parameter, metres. */
export function positionAt(segments: Segments, parameter: number, out: Vec3Like): void {
  const c = segments.coefficients;
  const i = segmentOf(segments, parameter);
  const u = parameter - i;
  const at = 12 * i;
  out[0] = c[at] + u * (c[at + 1] + u * (c[at + 2] + u * c[at + 3]));
  out[1] = c[at + 4] + u * (c[at + 5] + u * (c[at + 6] + u * c[at + 7]));
  out[2] = c[at + 8] + u * (c[at + 9] + u * (c[at + 10] + u * c[at + 11]));
}

/** The derivative of the given order (1 to 3) with respect to u, exact. */
export function derivativeAt(segments: Segments, parameter: number, order: 1 | 2 | 3, out: Vec3Like): void {
  const c = segments.coefficients;
  const i = segmentOf(segments, parameter);
  const u = parameter - i;
  for (let k = 0; k < 3; k++) {
    const at = 12 * i + 4 * k;
    if (order === 1) out[k] = c[at + 1] + u * (2 * c[at + 2] + 3 * u * c[at + 3]);
    else if (order === 2) out[k] = 2 * c[at + 2] + 6 * u * c[at + 3];
    else out[k] = 6 * c[at + 3];
  }
}

/**
 * The unit tangent at a path parameter. Where the curve halts (a handle of no length) it is the
 * direction in which it leaves, or arrives at the end of a segment.
 */
export function tangentAt(segments: Segments, parameter: number, out: Vec3Like): void {
  const c = segments.coefficients;
  const i = segmentOf(segments, parameter);
  const u = parameter - i;
  const at = 12 * i;
  const x = c[at + 1] + u * (2 * c[at + 2] + 3 * u * c[at + 3]);
  const y = c[at + 5] + u * (2 * c[at + 6] + 3 * u * c[at + 7]);
  const z = c[at + 9] + u * (2 * c[at + 10] + 3 * u * c[at + 11]);
  const speed = Math.sqrt(x * x + y * y + z * z);
  if (speed < 1e-9) {
    haltedTangent(segments, i, u, out);
    return;
  }
  out[0] = x / speed;
  out[1] = y / speed;
  out[2] = z / speed;
}

/** l'Hôpital: the first derivative that does not vanish gives the direction. */
function haltedTangent(segments: Segments, i: number, u: number, out: Vec3Like): void {
  const arriving = u > 0.5;
  for (const order of [2, 3] as const) {
    derivativeAt(segments, i + Math.min(u, 1 - 1e-15), order, out);
    const size = Math.hypot(out[0], out[1], out[2]);
    if (size < 1e-9) continue;
    // Approaching the halt, the first derivative is −(1 − u) times the second.
    const sign = arriving && order === 2 ? -1 : 1;
    for (let k = 0; k < 3; k++) out[k] = (sign * out[k]) / size;
    return;
  }
  out[0] = 0;
  out[1] = 0;
  out[2] = 1;
}
