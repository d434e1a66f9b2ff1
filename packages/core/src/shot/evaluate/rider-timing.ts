import type { PaceStop } from '../../motion/pace/compiled-pace.js';
import type { FrameMapping, FrameStep } from '../../motion/timing/frame-step.js';
import { mapFrames } from '../../motion/timing/map-frames.js';

/** Timing of a rider by its own pace, cues and retimes: plain data, for every thread to read. */
export interface RiderTiming {
  /** The own frame at which its pace begins. */
  readonly begins: number;
  /** Its stops in its own frames, and as the shot shows them; one that never ends is open to infinity. */
  readonly ownStops: readonly PaceStop[];
  readonly stops: readonly PaceStop[];
  /** From its own frames to those of the shot, the innermost first. */
  readonly steps: readonly FrameStep[];
}

type Range = { readonly first: number; readonly last: number };

/** Put together from a rider's own stops and what moves its frames. */
export function riderTiming(
  begins: number,
  ownStops: readonly PaceStop[],
  steps: readonly FrameStep[],
  range: Range,
): RiderTiming {
  return { begins, ownStops, steps, stops: shownStops(ownStops, mapFrames(steps, range)) };
}

/** Stops at the frames at which they are shown. */
export function shownStops(stops: readonly PaceStop[], { shown }: FrameMapping): PaceStop[] {
  return stops.flatMap(({ from, to, distance }) => {
    const begun = shown(from);
    return begun === null ? [] : [{ from: begun, to: shown(to) ?? Infinity, distance }];
  });
}
