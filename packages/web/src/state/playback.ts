import type { Shot } from '@fleet-rail/core';

/** Which frame is shown, and whether it runs. */
export interface Playback {
  readonly frame: number;
  readonly playing: boolean;
  readonly everyFrame: boolean;
}

export const newPlayback = ({ range }: Shot): Playback => ({
  frame: range.first,
  playing: false,
  everyFrame: false,
});

/** A frame held within the range of a shot. */
export const frameWithin = ({ range }: Shot, frame: number): number =>
  Math.min(range.last, Math.max(range.first, frame));
