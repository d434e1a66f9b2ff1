import type { Vec3Like } from '../math/vec.js';

/** A box turned in space: its middle, and from there to the middle of three of its faces; metres. */
export interface TurnedBox {
  /** Middle, then the three half axes: twelve numbers. */
  readonly numbers: Float64Array;
}

/**
 * How deep two turned boxes are in each other: the least way along which they come apart (separating axes, Gottschalk 1996);
 * that or less where they are no deeper in each other than asked for. Metres.
 *
 * @param asked below 0 for boxes that come so near to each other
 */
export function depthOf({ numbers: a }: TurnedBox, { numbers: b }: TurnedBox, asked = 0): number {
  const gap: [number, number, number] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  let least = Infinity;
  const reach = (of: Float64Array, x: number, y: number, z: number) =>
    Math.abs(of[3] * x + of[4] * y + of[5] * z) +
    Math.abs(of[6] * x + of[7] * y + of[8] * z) +
    Math.abs(of[9] * x + of[10] * y + of[11] * z);
  /** @returns whether they are apart along it */
  const apart = (x: number, y: number, z: number): boolean => {
    const size = Math.sqrt(x * x + y * y + z * z);
    if (size < 1e-12) return false;
    const far = Math.abs(gap[0] * x + gap[1] * y + gap[2] * z);
    const depth = (reach(a, x, y, z) + reach(b, x, y, z) - far) / size;
    if (depth < least) least = depth;
    return depth <= asked;
  };
  for (const box of [a, b])
    for (let k = 3; k < 12; k += 3) if (apart(box[k], box[k + 1], box[k + 2])) return least;
  for (let i = 3; i < 12; i += 3)
    for (let j = 3; j < 12; j += 3) {
      const x = a[i + 1] * b[j + 2] - a[i + 2] * b[j + 1];
      const y = a[i + 2] * b[j] - a[i] * b[j + 2];
      const z = a[i] * b[j + 1] - a[i + 1] * b[j];
      // Of axes that are as good as one, the way across is rounding alone.
      const sizes = Math.hypot(a[i], a[i + 1], a[i + 2]) * Math.hypot(b[j], b[j + 1], b[j + 2]);
      if (Math.hypot(x, y, z) > 1e-6 * sizes && apart(x, y, z)) return least;
    }
  return least;
}

/** How far a place is from a turned box; 0 in it. Metres. */
export function distanceToBox({ numbers: n }: TurnedBox, place: Vec3Like): number {
  let square = 0;
  for (let k = 3; k < 12; k += 3) {
    const size = Math.hypot(n[k], n[k + 1], n[k + 2]);
    if (size === 0) continue;
    let along = 0;
    for (let c = 0; c < 3; c++) along += ((place[c] - n[c]) * n[k + c]) / size;
    const beyond = Math.max(0, Math.abs(along) - size);
    square += beyond * beyond;
  }
  return Math.sqrt(square);
}

/** Whether a stretch from a place meets a turned box. */
export function boxMeetsStretch({ numbers: n }: TurnedBox, from: Vec3Like, to: Vec3Like): boolean {
  let [enter, leave] = [0, 1];
  for (let k = 3; k < 12; k += 3) {
    const square = n[k] ** 2 + n[k + 1] ** 2 + n[k + 2] ** 2;
    let [begin, way] = [0, 0];
    for (let c = 0; c < 3; c++) {
      begin += (from[c] - n[c]) * n[k + c];
      way += (to[c] - from[c]) * n[k + c];
    }
    if (way === 0) {
      if (Math.abs(begin) > square) return false;
      continue;
    }
    const [a, b] = [(-square - begin) / way, (square - begin) / way];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
    if (enter > leave) return false;
  }
  return true;
}
