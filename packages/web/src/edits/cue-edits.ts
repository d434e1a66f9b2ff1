import type { Cue } from '@fleet-rail/core';
import { refusing } from './rider-edits';
import type { Edit } from './edit';

/** Changes a cue, where that makes no riders wait for each other in a circle. */
export const changeCue = (id: string, part: Partial<Cue>): Edit =>
  refusing((shot) => ({
    ...shot,
    cues: shot.cues.map((cue) => (cue.id === id ? { ...cue, ...part } : cue)),
  }));
