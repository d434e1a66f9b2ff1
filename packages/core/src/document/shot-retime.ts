import { Amount, Flag, NestedList, Name, Texts } from './constraints.js';
import { Key } from './shot-keys.js';
import { LIMITS } from './limits.js';

/** Which frame of the work under it is shown at a frame of the shot. */
export class RetimeKey extends Key {
  @Amount('frame of the work') source!: number;
}

/**
 * Bends the time of the whole shot, or of some riders' travel, without touching their keys: slow motion, a
 * freeze, a ramp. Before its first key and after its last time runs on at its own rate.
 */
export class Retime {
  @Name(80) name = 'Retime';
  /** Empty for everything. */
  @Texts(LIMITS.riders) riders: string[] = [];
  @NestedList(() => RetimeKey, LIMITS.keysPerPace) keys: RetimeKey[] = [];
  /** Kept, but not played. */
  @Flag() off = false;
}
