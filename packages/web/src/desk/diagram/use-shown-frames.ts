import { evaluateShot, shownFrames, type Rider, type Shot, type ShownFrames } from '@fleet-rail/core';
import { useMemo } from 'react';

const SAME: ShownFrames = { shown: (frame) => frame, own: (frame) => frame };

/** Where a rider's keys are on the axis of the shot: elsewhere, where it waits for a cue or time is bent. */
export function useShownFrames(shot: Shot, rider: Rider | null): ShownFrames {
  const bent = shot.retimes.length > 0 || shot.cues.some(({ does }) => does.rider === rider?.id);
  // Anything in the shot may move a cue.
  const whole = bent ? shot : null;
  return useMemo(() => (whole && rider ? shownFrames(evaluateShot(whole), rider) : SAME), [whole, rider]);
}
