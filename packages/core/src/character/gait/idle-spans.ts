import { bisect } from '../../geometry/math/search.js';

/** Idle span of a walker in frames; infinite if it has always been stopped, or will be for ever. */
export interface IdleSpan {
  readonly from: number;
  readonly to: number;
}

/** Strides a second below which a walker stops, and above which it walks: different, so that it does not alternate. */
const SLOW = 0.05;
const GOES = 0.1;
/** Shorter than this it only turns about, seconds. */
const SHORTEST = 0.15;
const SUB = 2;

/**
 * Idle spans of a walker, by its speed with hysteresis.
 *
 * @param strides strides a second at a frame
 */
export function idleSpansOf(
  strides: (frame: number) => number,
  { from, to, fps }: { from: number; to: number; fps: number },
): IdleSpan[] {
  const speed = (frame: number) => Math.abs(strides(frame));
  const stands: IdleSpan[] = [];
  let standing = speed(from) < GOES;
  let since = -Infinity;
  const edge = (low: number, high: number, limit: number): number => {
    const rising = speed(high) >= limit;
    return bisect((frame) => speed(frame) >= limit === rising, low, high);
  };
  for (let i = 1; i <= (to - from) * SUB; i++) {
    const frame = from + i / SUB;
    if (standing && speed(frame) > GOES) {
      stands.push({ from: since, to: edge(frame - 1 / SUB, frame, GOES) });
      standing = false;
    } else if (!standing && speed(frame) < SLOW) {
      since = edge(frame - 1 / SUB, frame, SLOW);
      standing = true;
    }
  }
  if (standing) stands.push({ from: since, to: Infinity });
  return stands.filter((stand) => stand.to - stand.from > SHORTEST * fps);
}

/** Weight of the idle clip, 0 to 1: it fades in and out over `blend` frames inside the idle span. */
export function idleWeightIn({ from, to }: IdleSpan, blend: number, frame: number): number {
  if (frame <= from || frame >= to) return 0;
  const over = Math.min(blend, (to - from) / 2);
  if (over <= 0) return 1;
  return smoothStep(Math.min(1, (frame - from) / over)) * smoothStep(Math.min(1, (to - frame) / over));
}

/** From 0 to 1, level at both ends. */
export const smoothStep = (t: number): number => t * t * (3 - 2 * t);

/** Index of the idle span at a frame; −1 while it walks. */
export function idleSpanAt(stands: readonly IdleSpan[], frame: number): number {
  for (let i = 0; i < stands.length; i++) if (frame >= stands[i].from && frame <= stands[i].to) return i;
  return -1;
}
