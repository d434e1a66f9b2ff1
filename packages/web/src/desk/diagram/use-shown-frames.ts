import { compileRetiming, shownAt, type Rider, type Shot } from '@fleet-rail/core';
import { useMemo } from 'react';

/** From frames of a rider's own work to frames of the shot, and back. */
export interface ShownFrames {
  /** Null where the shot does not show it. */
  shown(frame: number): number | null;
  own(frame: number): number;
}

const SAME: ShownFrames = { shown: (frame) => frame, own: (frame) => frame };
/** Frames beyond the range in which keys are still looked for. */
const MARGIN = 1000;

/** Where a rider's keys are on the axis of the shot: elsewhere, where time is bent. */
export function useShownFrames(shot: Shot, rider: Rider | null): ShownFrames {
  const { retimes, range } = shot;
  const id = rider?.id ?? null;
  return useMemo(() => {
    const bent = id === null ? [] : compileRetiming({ retimes }, id);
    return bent.reduceRight<ShownFrames>(
      (inner, retiming) => ({
        shown(frame) {
          const within = inner.shown(frame);
          return within === null
            ? null
            : shownAt(retiming, within, range.first - MARGIN, range.last + MARGIN);
        },
        own: (frame) => inner.own(retiming.source(frame)),
      }),
      SAME,
    );
  }, [retimes, range, id]);
}
