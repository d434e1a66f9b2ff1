import { wrapAngle } from '../math/angle.js';
import type { Vec3 } from '../math/vec.js';
import type { FootDown } from './plants.js';
import { smoothStep } from './idle-spans.js';

/** Where a foot is locked while it is down. */
export interface Lock extends FootDown {
  readonly place: Vec3;
  readonly turn: number;
  /** By how much it is moved and turned there as it is set down, and as it is lifted. */
  readonly first: Shift;
  readonly last: Shift;
}

/** By how much a foot is moved along x and z, metres, and turned to the left, radians. */
export interface Shift {
  readonly x: number;
  readonly z: number;
  readonly turn: number;
}

export const NO_SHIFT: Shift = { x: 0, z: 0, turn: 0 };

/** Places of a stance that are averaged to where it is locked: it then moves the least. */
const SAMPLES = 8;
/** Frames of a stance, its first and last among them. */
export const samplesOf = ({ from, to }: FootDown) =>
  Array.from({ length: SAMPLES + 1 }, (_, i) => from + ((to - from) * i) / SAMPLES);

/** By how much a foot is moved and turned at a frame: to its lock, or on the way from one to the next. */
export function shiftAt(locks: readonly Lock[], frame: number, free: Vec3, turn: number): Shift {
  if (locks.length === 0) return NO_SHIFT;
  const after = locks.findIndex(({ from }) => from > frame);
  const before: Lock | undefined = locks[after < 0 ? locks.length - 1 : after - 1];
  if (before && frame <= before.to) return shiftTo(before.place, before.turn, free, turn);
  const next: Lock | undefined = after < 0 ? undefined : locks[after];
  const [a, b] = [before?.last ?? NO_SHIFT, next?.first ?? NO_SHIFT];
  if (!before || !next) return before ? a : b;
  const t = smoothStep((frame - before.to) / (next.from - before.to));
  const mix = (k: keyof Shift) => a[k] + t * (b[k] - a[k]);
  return { x: mix('x'), z: mix('z'), turn: mix('turn') };
}

/** From where and how a foot is to where and how it is locked. */
export function shiftTo(place: Vec3, turn: number, free: Vec3, freeTurn: number): Shift {
  const by = turn - freeTurn;
  return { x: place[0] - free[0], z: place[2] - free[2], turn: wrapAngle(by) };
}
