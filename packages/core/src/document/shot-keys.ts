import { Amount, OneOf, PairOrLeftOut } from './constraints.js';
import { EASES, type Ease } from './shot-pace.js';

/** How a value that is one of several of its key runs to the next. */
export type KeyEase = Exclude<Ease, 'handles'>;

/** Common fields of keys: a frame, and the ease of the stretch that follows. */
export class Key {
  @Amount('frame') frame!: number;
  @OneOf('linear', 'hold', 'smooth') ease: KeyEase = 'smooth';
}

/** A key of one value, whose stretch may be drawn by handles as that of a pace: frames and value from the key. */
class ValueKey {
  @Amount('frame') frame!: number;
  @OneOf(...EASES) ease: Ease = 'smooth';
  @PairOrLeftOut() in?: [number, number];
  @PairOrLeftOut() out?: [number, number];
}

/** How much of something holds, from a frame on: 0 none, 1 all of it. */
export class InfluenceKey extends ValueKey {
  @Amount('0 to 1', 0, 1) value!: number;
}

/** A focal length from a frame on. */
export class FocalKey extends ValueKey {
  @Amount('millimetres', 1, 10_000) value!: number;
}
