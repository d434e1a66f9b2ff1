/**
 * Frames that must stay for keys in a rider's own time: those whose own frame is later than all before. A frame shown
 * twice, as in a freeze or a reversal, needs one key.
 *
 * @param own the own frame that is shown at a frame
 * @returns indexes in rising order
 */
export function risingFrames(frames: readonly number[], own: (frame: number) => number): number[] {
  let latest = -Infinity;
  return frames.flatMap((frame, i) => {
    const at = own(frame);
    if (!(at > latest)) return [];
    latest = at;
    return [i];
  });
}
