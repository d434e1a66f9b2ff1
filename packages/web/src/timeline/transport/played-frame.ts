import type { FrameRange } from '@fleet-rail/core';

/**
 * Frame to show a number of seconds after playing began at `start`: the last whole frame whose time has come. A loop
 * restarts after its last frame; otherwise the result is null once that has been shown for its time.
 */
export function playedFrame(
  start: number,
  elapsedS: number,
  fps: number,
  { first, last }: FrameRange,
  loop: boolean,
): number | null {
  // A clock that ticks exactly on a frame must not fall a hair short of it.
  const frame = Math.floor(start + elapsedS * fps + 1e-6);
  if (frame <= last) return frame;
  return loop ? first + ((frame - first) % (last - first + 1)) : null;
}
