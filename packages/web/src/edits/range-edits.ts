import type { Shot } from '@fleet-rail/core';

/** A shot with a range of a length, from the same first frame on. */
export const withFrames =
  (frames: number) =>
  (shot: Shot): Shot => ({
    ...shot,
    range: { first: shot.range.first, last: shot.range.first + frames - 1 },
  });
