import { Amount, OneOf } from './constraints.js';

/** How a value runs from its key to the next. */
export type KeyEase = 'linear' | 'hold' | 'smooth';

/** What every key has: a frame, and how the stretch that follows runs. */
export class Key {
  @Amount('frame') frame!: number;
  @OneOf('linear', 'hold', 'smooth') ease: KeyEase = 'smooth';
}

/** How much of something holds, from a frame on: 0 none, 1 all of it. */
export class InfluenceKey extends Key {
  @Amount('0 to 1', 0, 1) value!: number;
}
