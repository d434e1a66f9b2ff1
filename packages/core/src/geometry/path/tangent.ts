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
  makeUnit(segments, i, u, out, 0);
}

const halted: [number, number, number] = [0, 0, 0];

/** Makes the unit tangent of the first derivative there, read from three numbers from `out[at]`. */
export function makeUnit(segments: Segments, i: number, u: number, out: Vec3Like, at: number): void {
  const [x, y, z] = [out[at], out[at + 1], out[at + 2]];
  const speed = Math.sqrt(x * x + y * y + z * z);
  if (speed < HALTED) {
    haltedTangent(segments, i, u, halted);
    for (let k = 0; k < 3; k++) out[at + k] = halted[k];
    return;
  }
  out[at] = x / speed;
  out[at + 1] = y / speed;
  out[at + 2] = z / speed;
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
