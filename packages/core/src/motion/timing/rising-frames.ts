/**
 * Which of some frames have to stay for keys that stand in a rider's own time: those that are later there than all before. What is
 * shown twice, as where time stands or runs back, needs a key but once.
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
