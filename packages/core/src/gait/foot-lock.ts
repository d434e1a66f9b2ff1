import { wrapAngle } from '../math/angle.js';
import type { Vec3 } from '../math/vec.js';
import { smoothStep } from './idle-spans.js';
import type { FootDown } from './step-plan.js';

/** Where a foot is locked while it is down. */
export interface Lock extends FootDown {
  readonly position: Vec3;
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

/** Where a foot is in plan, how high over its ground, metres, and which way the walker is turned for it, radians. */
export interface FootPosition {
  readonly x: number;
  readonly z: number;
  readonly height: number;
  readonly turn: number;
}

/** A step that no clip has, from place to place. */
export interface Glide {
  readonly from: number;
  readonly to: number;
  readonly start: FootPosition;
  readonly end: FootPosition;
  /** How much higher it is lifted on the way, metres. */
  readonly lift: number;
}

/** All that one foot does on the ground and between. */
export interface FootTrack {
  readonly locks: readonly Lock[];
  readonly glides: readonly Glide[];
}

export const NO_SHIFT: Shift = { x: 0, z: 0, turn: 0 };

/** Samples of a stance that are averaged to where it is locked: it then moves the least. */
const SAMPLES = 8;
/** Frames of a stance, its first and last among them. */
export const samplesOf = ({ from, to }: Pick<FootDown, 'from' | 'to'>) =>
  Array.from({ length: SAMPLES + 1 }, (_, i) => from + ((to - from) * i) / SAMPLES);

/** Where a foot is on a step of its own at a frame; null where it is on none. */
export function glideAt({ glides }: FootTrack, frame: number): FootPosition | null {
  const glide = glides.find(({ from, to }) => frame > from && frame < to);
  if (glide === undefined) return null;
  const { start, end, lift } = glide;
  const part = (frame - glide.from) / (glide.to - glide.from);
  const t = smoothStep(part);
  // Lifted at once and set down at last, so that it does not drag.
  const up = 1 - (2 * part - 1) ** 4;
  return {
    x: start.x + t * (end.x - start.x),
    z: start.z + t * (end.z - start.z),
    height: start.height + t * (end.height - start.height) + lift * up,
    turn: start.turn + t * wrapAngle(end.turn - start.turn),
  };
}

/** By how much a foot is moved and turned at a frame: to its lock, or on the way from one to the next. */
export function shiftAt({ locks, glides }: FootTrack, frame: number, free: Vec3, turn: number): Shift {
  if (locks.length === 0) return NO_SHIFT;
  const after = locks.findIndex(({ from }) => from > frame);
  const before: Lock | undefined = locks[after < 0 ? locks.length - 1 : after - 1];
  if (before && frame <= before.to) return shiftTo(before.position, before.turn, free, turn);
  const next: Lock | undefined = after < 0 ? undefined : locks[after];
  const [a, b] = [before?.last ?? NO_SHIFT, next?.first ?? NO_SHIFT];
  if (!before || !next) return before ? a : b;
  // A step of its own takes the foot over: until it begins the foot goes on as before, and after it as for what follows.
  const step = glides.find(({ from, to }) => from < next.from && to > before.to);
  if (step) return frame <= step.from ? a : b;
  const t = smoothStep((frame - before.to) / (next.from - before.to));
  const mix = (k: keyof Shift) => a[k] + t * (b[k] - a[k]);
  return { x: mix('x'), z: mix('z'), turn: mix('turn') };
}

/** From where and how a foot is to where and how it is locked. */
export function shiftTo(place: Vec3, turn: number, free: Vec3, freeTurn: number): Shift {
  return { x: place[0] - free[0], z: place[2] - free[2], turn: wrapAngle(turn - freeTurn) };
}
