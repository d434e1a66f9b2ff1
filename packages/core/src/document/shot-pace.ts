import { Amount, OneOf, Pair, Part, Parts, rule } from './constraints.js';
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
  @rule('a number, and no distance beside it', optionalNumber) frame?: number;
  @rule('a number, and no frame beside it', optionalNumber) distance?: number;
  @Amount('m/s') speed!: number;
  @OneOf('linear', 'hold', 'smooth') ease: Exclude<Ease, 'handles'> = 'smooth';
}

function optionalNumber(v: unknown): boolean {
  return v === undefined || (typeof v === 'number' && Number.isFinite(v) && Math.abs(v) <= 1e9);
}

/** A place where a driven rider halts. */
export class Stop {
  @Amount('metres') distance!: number;
  @Amount('seconds', 0, 1e6) seconds!: number;
}

/** A stretch with a speed limit of its own. */
export class Zone {
  @Amount('metres') from!: number;
  @Amount('metres') to!: number;
  @Amount('m/s', 1e-6, 1e6) speed!: number;
}

/** The limits a rider is driven within. */
export class Drive {
  @Amount('m/s', 1e-6, 1e6) top = 8;
  @Amount('m/s²', 1e-6, 1e6) accelerate = 2;
  @Amount('m/s²', 1e-6, 1e6) brake = 3;
  @Amount('m/s²', 1e-6, 1e6) sideways = 4;
  @Amount('m/s³', 1e-6, 1e6) jerk = 8;
  @Parts(() => Stop, LIMITS.keysPerPace) stops: Stop[] = [];
  @Parts(() => Zone, LIMITS.keysPerPace) zones: Zone[] = [];
}

/** Where the motion begins: the frame, and the place in the pace's unit. */
export class PaceStart {
  @Amount('frame') frame = 1;
  @Amount('metres or laps') value = 0;
}

/** Distance along the path over time. */
export class Pace {
  @OneOf('keys', 'speed', 'drive') mode: 'keys' | 'speed' | 'drive' = 'keys';
  @OneOf('metres', 'laps') unit: 'metres' | 'laps' = 'metres';
  @Parts(() => PaceKey, LIMITS.keysPerPace) keys: PaceKey[] = [];
  @Parts(() => SpeedKey, LIMITS.keysPerPace) speeds: SpeedKey[] = [];
  @Part(() => Drive) drive: Drive = new Drive();
  @Part(() => PaceStart) start: PaceStart = new PaceStart();
  @OneOf(...OUTSIDES) before: Outside = 'hold';
  @OneOf(...OUTSIDES) after: Outside = 'hold';
}
