import { UNCHANGED_FRAMES, mapFrames, type FrameMapping, type Rider, type Shot } from '@fleet-rail/core';
import { useMemo } from 'react';
import { useDesk } from '../../state/desk-store';

/** Shown frames of a rider's keys: they differ from its own if it waits for a cue or time is bent. */
export function useShownFrames(shot: Shot, rider: Rider | null): FrameMapping {
  const steps = useDesk(({ evaluation }) => evaluation?.riders.get(rider?.id ?? '')?.timing?.steps);
  const { first, last } = shot.range;
  return useMemo(
    () => (steps && steps.length > 0 ? mapFrames(steps, { first, last }) : UNCHANGED_FRAMES),
    [steps, first, last],
  );
}
