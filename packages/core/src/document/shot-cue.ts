import {
  IdOrNull,
  Amount,
  Flag,
  Id,
  OneOf,
  Nested,
  NestedList,
  Name,
  TextOrNull,
  Whole,
  rule,
  orNull,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { AXES, type Axis } from './shot-facing.js';
import type { KeyEase } from './shot-keys.js';

export const CUE_SOURCES = ['frame', 'distance', 'gap', 'stop', 'speed', 'cue'] as const;

/** Source that a cue listens to. */
export class CueTrigger {
  /**
   * The shot's frame, how far a rider has come along its path, how far two riders are from each other, how fast one goes; or the
   * seconds since one of its stops began or ended, or since another cue came.
   */
  @OneOf(...CUE_SOURCES) kind: (typeof CUE_SOURCES)[number] = 'distance';
  @IdOrNull('rider') rider: string | null = null;
  /** The second rider of a gap. */
  @IdOrNull('rider') other: string | null = null;
  /** Of `stop`: which of the rider's stops, counted from 0, and its beginning or its end. */
  @Whole(0, 10_000) stop = 0;
  @OneOf('begin', 'end') from: 'begin' | 'end' = 'begin';
  /** Of `cue`: which. */
  @IdOrNull('cue')
  cue: string | null = null;
}

export const CUE_ACTIONS = [
  'turn',
  'move',
  'start',
  'stopEnd',
  'play',
  'show',
  'facing',
  'attachment',
  'path',
  'camera',
] as const;

/** Effect of a cue. */
export class CueAction {
  /**
   * Turns or moves a part of a rider's model; starts a rider; ends one of its stops; plays a clip of its model; shows it; says how
   * much it faces its way, or follows its path; turns it out to another path; cuts to it.
   */
  @OneOf(...CUE_ACTIONS) kind: (typeof CUE_ACTIONS)[number] = 'start';
  @Id() rider!: string;
  /** Of a turn or a move: the part of the model, and its own axis. */
  @rule(
    'the name of a part, or null',
    (v) => v === null || (typeof v === 'string' && v.length > 0),
    orNull({ type: 'string', minLength: 1 }),
  )
  node: string | null = null;
  @OneOf(...AXES) axis: Axis = '+y';
  /** Of a stop's end: which of the rider's stops, counted from 0. */
  @Whole(0, 10_000) stop = 0;
  /** Of `path`: which it turns out to. */
  @IdOrNull('path')
  path: string | null = null;
  /** Of `play`: the clip; once, each time the value reaches 1, or as long as it is above 0. */
  @TextOrNull() clip: string | null = null;
  @OneOf('once', 'while') plays: 'once' | 'while' = 'once';
  /** Of `play`: how long it takes to come and to go. */
  @Amount('seconds', 0, 1e3) blend = 0.25;
  /** Of a turn or a move: factor of the keys' values; −1 for the other part of a pair. */
  @Amount('times', -1e3, 1e3) times = 1;
}

/** Value that a cue gives from a value of its source on. */
export class CueKey {
  /** Frames, metres, metres a second or seconds, as the source has it. */
  @Amount('frames, metres, m/s or seconds') at!: number;
  /** Degrees of a turn, metres of a move; parts of 1 of what blends or shows; all else comes where this first reaches 1. */
  @Amount('degrees, metres, or 1 to go') value!: number;
  @OneOf('linear', 'hold', 'smooth') ease: KeyEase = 'smooth';
}

/** An action that starts when something else reaches a distance or time. */
export class Cue {
  @Id() id!: string;
  @Name(80) name!: string;
  @Nested(() => CueTrigger) trigger: CueTrigger = new CueTrigger();
  @Nested(() => CueAction) action!: CueAction;
  /** Further actions at the same time. */
  @NestedList(() => CueAction, LIMITS.partsPerRider) moreActions: CueAction[] = [];
  @NestedList(() => CueKey, LIMITS.keysPerPace) keys: CueKey[] = [];
  /** Kept, but not played. */
  @Flag() off = false;
}
