import { defaultsOf } from '../document/defaults.js';
import { Hitch } from '../document/shot-hitch.js';
import type { FrameRange } from '../document/shot.js';

/**
 * A hitch that runs the path once over the range at even speed, facing along it. In laps, so that
 * it stays "once along the path" however the path is edited.
 */
export function newHitch(pathId: string, range: FrameRange): Hitch {
  const plain = defaultsOf(Hitch);
  const key = { ease: 'linear' as const, in: [0, 0] as [number, number], out: [0, 0] as [number, number] };
  return {
    ...plain,
    path: pathId,
    pace: {
      ...plain.pace,
      unit: 'laps',
      start: { frame: range.first, value: 0 },
      keys: [
        { ...key, frame: range.first, value: 0 },
        // A single-frame range still needs its second key later than the first.
        { ...key, frame: Math.max(range.last, range.first + 1), value: 1 },
      ],
    },
  };
}
