import type { Motion } from '../pace/compiled-pace.js';
import type { FrameMapping, FrameStep } from './frame-step.js';
import { retimingOf, shownAt } from './retiming.js';

export const UNCHANGED_FRAMES: FrameMapping = {
  own: (frame) => frame,
  rate: () => 1,
  shown: (frame) => frame,
};

/** Frames beyond a range in which an own frame is still looked for. */
const MARGIN = 1000;

/** Steps put together, the innermost first. */
export function mapFrames(
  steps: readonly FrameStep[],
  range: { readonly first: number; readonly last: number },
): FrameMapping {
  return steps.reduce<FrameMapping>((inner, step) => {
    const outer = mappingOf(step, range);
    return {
      own: (frame) => inner.own(outer.own(frame)),
      rate: (frame) => outer.rate(frame) * inner.rate(outer.own(frame)),
      shown(own) {
        const within = inner.shown(own);
        return within === null ? null : outer.shown(within);
      },
    };
  }, UNCHANGED_FRAMES);
}

function mappingOf(step: FrameStep, range: { readonly first: number; readonly last: number }): FrameMapping {
  if (step.kind === 'start') return startedAt(step.begins, step.go ?? Infinity);
  if (step.kind === 'stopEnd') return stopEndedAt(step.from, step.to, step.end ?? Infinity);
  const { source, rate } = retimingOf(step.keys);
  return {
    own: source,
    rate,
    shown: (frame) => shownAt({ source, rate }, frame, range.first - MARGIN, range.last + MARGIN),
  };
}

/** It waits at its start until it is cued; earlier motion is never shown. */
function startedAt(begins: number, go: number): FrameMapping {
  const later = go - begins;
  return {
    own: (frame) => (frame < go ? begins : frame - later),
    rate: (frame) => (frame < go ? 0 : 1),
    shown(own) {
      if (go === Infinity) return own === begins ? begins : null;
      return own < begins ? null : own + later;
    },
  };
}

/** A stop that ends sooner or later; what follows shifts with it. */
function stopEndedAt(from: number, to: number, asked: number): FrameMapping {
  // A rider that waits for ever for its start has no end of a stop.
  if (to === Infinity) return UNCHANGED_FRAMES;
  const end = Math.max(from, asked);
  const later = end - to;
  return {
    own: (frame) => (frame < from ? frame : frame < end ? Math.min(frame, to) : frame - later),
    rate: (frame) => (frame >= from && frame < end ? 0 : 1),
    shown(own) {
      if (own < to) return Math.min(own, end);
      return end === Infinity ? null : own + later;
    },
  };
}

/** A motion at the frames at which it is shown. */
export function inShownFrames(motion: Motion, { own, rate }: FrameMapping): Motion {
  return {
    distance: (frame) => motion.distance(own(frame)),
    speed(frame) {
      const part = rate(frame);
      return part === 0 ? 0 : motion.speed(own(frame)) * part;
    },
  };
}
