import {
  Amount,
  Flag,
  OneOf,
  Pair,
  Nested,
  NestedOrNull,
  NestedList,
  Name,
  Whole,
  rule,
  orNull,
  numbers,
} from './constraints.js';
import { LIMITS } from './limits.js';

export const EASES = ['linear', 'hold', 'smooth', 'handles'] as const;
export type Ease = (typeof EASES)[number];

export const OUTSIDES = ['hold', 'repeat', 'accumulate', 'mirror', 'run'] as const;
export type Outside = (typeof OUTSIDES)[number];

/** A place on the path at a frame; `ease` shapes the stretch that follows. */
export class PaceKey {
  @Amount('frame') frame!: number;
  /** Metres or laps, as the pace's `unit` says. */
  @Amount('metres or laps') value!: number;
  @OneOf(...EASES) ease: Ease = 'linear';
  @Pair() in: [number, number] = [0, 0];
  @Pair() out: [number, number] = [0, 0];
}

/** A speed at a frame, or at a distance along the path. */
export class SpeedKey {
  @rule('a number, and no distance beside it', optionalNumber, { type: 'number' }) frame?: number;
  @rule('a number, and no frame beside it', optionalNumber, { type: 'number' }) distance?: number;
  @Amount('m/s') speed!: number;
  @OneOf('linear', 'hold', 'smooth') ease: Exclude<Ease, 'handles'> = 'smooth';
}

function optionalNumber(v: unknown): boolean {
  return v === undefined || (typeof v === 'number' && Number.isFinite(v) && Math.abs(v) <= 1e9);
}

function isStretchOrNull(v: unknown): boolean {
  if (v === null) return true;
  return (
    Array.isArray(v) &&
    v.length === 2 &&
    v.every((n) => typeof n === 'number' && Number.isFinite(n) && Math.abs(n) <= 1e9) &&
    v[1] >= v[0]
  );
}

/** A place where a driven rider stops. */
export class DriveStop {
  @Amount('metres') distance!: number;
  @Amount('seconds', 0, 1e6) seconds!: number;
}

/** A stretch with its own speed limit. */
export class Zone {
  @Amount('metres') from!: number;
  @Amount('metres') to!: number;
  @Amount('m/s', 1e-6, 1e6) speed!: number;
}

export const WAYS_TO_END = ['rest', 'rolling'] as const;

/** The limits a rider is driven within. */
export class Drive {
  @Amount('m/s', 1e-6, 1e6) top = 8;
  @Amount('m/s²', 1e-6, 1e6) accelerate = 2;
  @Amount('m/s²', 1e-6, 1e6) brake = 3;
  @Amount('m/s²', 1e-6, 1e6) sideways = 4;
  /** How fast acceleration may change; null for as fast as one likes. */
  @rule(
    'a number from 0.000001 to 1000000 (m/s³), or null',
    (v) => v === null || (typeof v === 'number' && v >= 1e-6 && v <= 1e6),
    orNull({ type: 'number', minimum: 1e-6, maximum: 1e6 }),
  )
  jerk: number | null = 8;
  /** Whether it starts from rest, or at speed. */
  @OneOf(...WAYS_TO_END) departs: 'rest' | 'rolling' = 'rest';
  /** Whether it stops at the end of an open path, or runs out of it at speed. */
  @OneOf(...WAYS_TO_END) arrives: 'rest' | 'rolling' = 'rest';
  /** Along the path, or against it. */
  @OneOf('along', 'against') way: 'along' | 'against' = 'along';
  @NestedList(() => DriveStop, LIMITS.keysPerPace) stops: DriveStop[] = [];
  @NestedList(() => Zone, LIMITS.keysPerPace) zones: Zone[] = [];
}

/** Start of the motion: the frame, and the distance in the pace's unit. */
export class PaceStart {
  @Amount('frame') frame = 1;
  @Amount('metres or laps') value = 0;
}

/** Varies each repeated cycle; the keyed one stays as it is. */
export class Variation {
  /** How much longer or shorter a cycle gets at most, as a part of it. */
  @Amount('0 to 0.5', 0, 0.5) time = 0;
  /** How much further or less far it goes at most, as a part of its distance. */
  @Amount('0 to 0.5', 0, 0.5) amount = 0;
  @Whole(0, 2 ** 31 - 1) seed = 0;
}

/** Distance along the path over time. */
export class Pace {
  @OneOf('keys', 'speed', 'drive') mode: 'keys' | 'speed' | 'drive' = 'keys';
  @OneOf('metres', 'laps') unit: 'metres' | 'laps' = 'metres';
  @NestedList(() => PaceKey, LIMITS.keysPerPace) keys: PaceKey[] = [];
  @NestedList(() => SpeedKey, LIMITS.keysPerPace) speeds: SpeedKey[] = [];
  @Nested(() => Drive) drive: Drive = new Drive();
  @Nested(() => PaceStart) start: PaceStart = new PaceStart();
  @OneOf(...OUTSIDES) before: Outside = 'hold';
  @OneOf(...OUTSIDES) after: Outside = 'hold';
  @NestedOrNull(() => Variation) variation: Variation | null = null;
  /** The rider stays between these two distances, metres, whatever keys, cycles and variations say. */
  @rule(
    'two numbers [from, to] in metres, the second not below the first, or null',
    isStretchOrNull,
    orNull(numbers(2)),
  )
  within: [number, number] | null = null;
  /** Keys and stops keep their share of the path's length when the path is reshaped; otherwise they keep their positions. */
  @Flag() stretches = false;
}

/** A timing that was kept beside the one that plays, to compare with. */
export class Take {
  @Name(80) name!: string;
  @Nested(() => Pace) pace!: Pace;
}
