import { wrapAngle } from '../../geometry/math/angle.js';
import { lastAtMost } from '../../geometry/math/search.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { smoothStep } from './idle-spans.js';
import type { FootDown } from './step-plan.js';

/** Lock of a foot while it is down. */
export interface Lock extends FootDown {
  readonly position: Vec3;
  readonly turn: number;
  /** Its shift and turn as it is planted, and as it is lifted. */
  readonly first: Readonly<Shift>;
  readonly last: Readonly<Shift>;
}

/** By how much a foot is moved along x and z, metres, and turned to the left, radians. */
export interface Shift {
  x: number;
  z: number;
  turn: number;
}

/** Position of a foot in plan, its height over its ground, metres, and the walker's heading there, radians. */
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
  /** In order of time, and the frames at which they begin. */
  readonly locks: readonly Lock[];
  readonly begins: readonly number[];
  readonly glides: readonly Glide[];
}

export const NO_SHIFT: Readonly<Shift> = { x: 0, z: 0, turn: 0 };

export function footTrack(locks: readonly Lock[], glides: readonly Glide[]): FootTrack {
  return { locks, begins: locks.map(({ from }) => from), glides };
}

/** Which lock began last at a frame; −1 before the first. */
export function lockBegun({ begins }: FootTrack, frame: number): number {
  return begins.length === 0 || begins[0] > frame ? -1 : lastAtMost(begins, frame);
}

/** Samples of a stance that are averaged to where it is locked: it then moves the least. */
const SAMPLES = 8;
/** Frames of a stance, its first and last among them. */
export const samplesOf = ({ from, to }: Pick<FootDown, 'from' | 'to'>) =>
  Array.from({ length: SAMPLES + 1 }, (_, i) => from + ((to - from) * i) / SAMPLES);

/** Position of a foot during a step of its own at a frame; null outside such a step. */
export function glideAt({ glides }: FootTrack, frame: number): FootPosition | null {
  for (const glide of glides) if (frame > glide.from && frame < glide.to) return onGlide(glide, frame);
  return null;
}

function onGlide(glide: Glide, frame: number): FootPosition {
  const { start, end, lift } = glide;
  const part = (frame - glide.from) / (glide.to - glide.from);
  const t = smoothStep(part);
  // Lifted early and lowered late, so that it does not drag.
  const up = 1 - (2 * part - 1) ** 4;
  return {
    x: start.x + t * (end.x - start.x),
    z: start.z + t * (end.z - start.z),
    height: start.height + t * (end.height - start.height) + lift * up,
    turn: start.turn + t * wrapAngle(end.turn - start.turn),
  };
}

/** By how much a foot is moved and turned at a frame: to its lock, or on the way from one to the next. */
export function shiftAt(track: FootTrack, frame: number, free: Vec3, turn: number, out: Shift): void {
  const { locks, glides } = track;
  const i = lockBegun(track, frame);
  const before: Lock | undefined = locks[i];
  if (before && frame <= before.to) {
    shiftTo(before.position, before.turn, free, turn, out);
    return;
  }
  const next: Lock | undefined = locks[i + 1];
  const a = before?.last ?? next?.first ?? NO_SHIFT;
  const b = next?.first ?? a;
  // A step of its own moves the foot: before it the foot continues as it was, after it as for its next stance.
  const step = before && next ? glides.find(({ from, to }) => from < next.from && to > before.to) : undefined;
  const part = before && next ? (frame - before.to) / (next.from - before.to) : 0;
  const t = step ? (frame <= step.from ? 0 : 1) : smoothStep(part);
  out.x = a.x + t * (b.x - a.x);
  out.z = a.z + t * (b.z - a.z);
  out.turn = a.turn + t * (b.turn - a.turn);
}

/** From where and how a foot is to where and how it is locked. */
export function shiftTo(place: Vec3, turn: number, free: Vec3, freeTurn: number, out: Shift): void {
  out.x = place[0] - free[0];
  out.z = place[2] - free[2];
  out.turn = wrapAngle(turn - freeTurn);
}
