import { Amount, Whole } from './constraints.js';

/** The shake of what is held by hand: a little to and fro in place and turn, never the same, and the same for the same seed. */
export class Shake {
  /** As far as it strays at most along each of its axes. */
  @Amount('metres', 0, 100) place = 0.02;
  /** As far as it turns at most, to the sides and up and down; half of it rolls. */
  @Amount('degrees', 0, 90) turn = 0.5;
  /** Frequency, swings a second. */
  @Amount('times a second', 0.01, 50) rate = 1;
  @Whole(0, 2 ** 31 - 1) seed = 1;
}
