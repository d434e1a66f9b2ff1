import type { Vec3Like } from '../math/vec.js';
import type { Segments } from './segments.js';

/** A curve that moves slower than this, metres per unit of u, halts: its velocity says no direction. */
export const HALTED = 1e-9;

/**
 * The unit tangent at u of segment i. Where the curve halts (a handle of no length) it is the
 * direction in which it leaves, or arrives at the end of a segment.
 */
export function unitTangent(segments: Segments, i: number, u: number, out: Vec3Like): void {
  segments.velocity(i, u, out);
  const speed = Math.sqrt(out[0] * out[0] + out[1] * out[1] + out[2] * out[2]);
  if (speed < HALTED) {
    haltedTangent(segments, i, u, out);
    return;
  }
  out[0] /= speed;
  out[1] /= speed;
  out[2] /= speed;
}

/** l'Hôpital: the first derivative that does not vanish gives the direction. */
function haltedTangent(segments: Segments, i: number, u: number, out: Vec3Like): void {
  const arriving = u > 0.5;
  for (const order of [2, 3] as const) {
    segments.derivative(i, u, order, out);
    const size = Math.hypot(out[0], out[1], out[2]);
    if (size < HALTED) continue;
    // Approaching the stop, the first derivative is −(1 − u) times the second.
    const sign = arriving && order === 2 ? -1 : 1;
    for (let k = 0; k < 3; k++) out[k] = (sign * out[k]) / size;
    return;
  }
  out[0] = 0;
  out[1] = 0;
  out[2] = 1;
}
