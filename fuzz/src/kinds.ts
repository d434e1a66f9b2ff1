import { tryShot } from './try-shot.js';

/** By kind what tries one input, made from a seed; it gives what is wrong, or null. */
export const KINDS = {
  shots: tryShot,
} satisfies Record<string, (seed: number) => string | null | Promise<string | null>>;
