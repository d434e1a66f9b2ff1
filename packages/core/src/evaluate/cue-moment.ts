import type { FrameRange } from '../document/shot.js';

/**
 * The first frame from a range's first to one past its last at which a value has come to 1; null where it does not.
 */
export function momentOf(value: (frame: number) => number, { first, last }: FrameRange): number | null {
  if (value(first) >= 1) return first;
  for (let frame = first + 1; frame <= last + 1; frame++) {
    if (value(frame) < 1) continue;
    let [low, high] = [frame - 1, frame];
    for (let step = 0; step < 50; step++) {
      const middle = (low + high) / 2;
      if (value(middle) >= 1) high = middle;
      else low = middle;
    }
    return high;
  }
  return null;
}
