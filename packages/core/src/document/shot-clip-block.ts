import { Amount, OneOf, Text, rule, orNull } from './constraints.js';

export const CLIP_STEPS = ['time', 'distance', 'gait'] as const;

/** A clip of the model, played from one frame to another over whatever else moves its parts. */
export class ClipBlock {
  @Text() clip!: string;
  /** Frames of the work: from the one up to the other. Where the next block begins before, the two blend into each other. */
  @Amount('frame') frame!: number;
  @Amount('frame') until!: number;
  /** End of the part that is played; null for the clip's own end. */
  @Amount('seconds', 0, 1e5) from = 0;
  @rule(
    'seconds after from, or null',
    (v) => v === null || (Number.isFinite(v) && (v as number) > 0),
    orNull({ type: 'number', exclusiveMinimum: 0 }),
  )
  to: number | null = null;
  /** Its drive: seconds, metres travelled, or cycles of the gait. */
  @OneOf(...CLIP_STEPS) by: (typeof CLIP_STEPS)[number] = 'time';
  /** Times its own speed; of distance and gait, so often a metre or a cycle. Negative runs it backward. */
  @Amount('times its own speed, a metre or a cycle', -1e3, 1e3) rate = 1;
  /** At its end it begins again, or stays as it ends. */
  @OneOf('repeat', 'hold') end: 'repeat' | 'hold' = 'repeat';
  /** How long it takes to come and to go where no other block does. */
  @Amount('seconds', 0, 1e3) blend = 0.25;
}
