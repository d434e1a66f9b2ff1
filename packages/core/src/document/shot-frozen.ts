import { Amount, NestedList, NestedOrNull, Nested, Text, rule } from './constraints.js';
import { LIMITS } from './limits.js';

const isNumbers = (v: unknown) =>
  Array.isArray(v) && v.length <= 10 * LIMITS.frames && v.every(Number.isFinite);
const isRising = (v: unknown) =>
  isNumbers(v) &&
  (v as number[]).length > 0 &&
  (v as number[]).every((n, i, all) => i === 0 || n > all[i - 1]);

/** Samples that are straight from one to the next, and held before the first and after the last. */
export class FrozenTrack {
  /** Frames of the work. */
  @rule('rising frames, one at least', isRising, { type: 'array', items: { type: 'number' }, minItems: 1 })
  frames!: number[];
  /** As many numbers a frame as the track has, one frame after the other. */
  @rule('a list of numbers', isNumbers, { type: 'array', items: { type: 'number' } })
  values!: number[];
}

/** Local transform of a part of the model. */
export class FrozenPart {
  @Text() node!: string;
  @Nested(() => FrozenTrack) translation!: FrozenTrack;
  @Nested(() => FrozenTrack) rotation!: FrozenTrack;
  @Nested(() => FrozenTrack) scale!: FrozenTrack;
  @NestedOrNull(() => FrozenTrack) weights: FrozenTrack | null = null;
}

/** Bake of a rider: it plays instead of the ride, which stays as it is underneath. */
export class Frozen {
  /** So near is it to what was baked, metres; of turns as much at a metre’s distance. */
  @Amount('metres', 0, 1e3) within = 0.001;
  @Nested(() => FrozenTrack) translation!: FrozenTrack;
  @Nested(() => FrozenTrack) rotation!: FrozenTrack;
  /** Distance, speed and bank, as the board shows them. */
  @Nested(() => FrozenTrack) figures!: FrozenTrack;
  @NestedList(() => FrozenPart, LIMITS.partsPerRider * 5) parts: FrozenPart[] = [];
}
