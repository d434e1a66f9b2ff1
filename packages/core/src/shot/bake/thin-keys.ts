import { keepWithin } from '../../geometry/math/keep-within.js';
import { quat } from 'gl-matrix';
import type { Quat } from '../../geometry/math/vec.js';

/**
 * Which samples of a channel have to stay as keys so that straight interpolation between them (of rotations: spherical) comes
 * within a tolerance of every sample: first and last always.
 *
 * @param width     numbers a sample
 * @param tolerance in the channel's own unit; of turns radians
 * @param kind      whether the numbers of a sample are a rotation
 */
export function keysWithin(
  values: Float64Array,
  width: number,
  tolerance: number,
  kind: 'straight' | 'turns',
): number[] {
  const error = (from: number, to: number, i: number) => errorAt(values, width, kind, from, to, i);
  return keepWithin(values.length / width, error, tolerance);
}

function errorAt(
  values: Float64Array,
  width: number,
  kind: 'straight' | 'turns',
  from: number,
  to: number,
  i: number,
): number {
  const t = (i - from) / (to - from);
  if (kind === 'turns') {
    for (let k = 0; k < 4; k++) {
      start[k] = values[from * 4 + k];
      end[k] = values[to * 4 + k];
      own[k] = values[i * 4 + k];
    }
    quat.slerp(start, start, end, t);
    const dot = Math.min(1, Math.abs(quat.dot(start, own)));
    // Near 1 the arc cosine has no digits left.
    return dot > 0.999 ? 2 * Math.asin(Math.min(1, chord(start, own) / 2)) * 2 : 2 * Math.acos(dot);
  }
  let square = 0;
  for (let k = 0; k < width; k++) {
    const straight = values[from * width + k] + t * (values[to * width + k] - values[from * width + k]);
    square += (straight - values[i * width + k]) ** 2;
  }
  return Math.sqrt(square);
}

function chord(a: Quat, b: Quat): number {
  const plus = Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2], a[3] - b[3]);
  const minus = Math.hypot(a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]);
  return Math.min(plus, minus);
}

const start: Quat = [0, 0, 0, 1];
const end: Quat = [0, 0, 0, 1];
const own: Quat = [0, 0, 0, 1];
