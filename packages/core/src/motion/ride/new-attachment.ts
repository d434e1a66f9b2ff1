import { defaultsOf } from '../../document/defaults.js';
import { Attachment } from '../../document/shot-attachment.js';
import type { FrameRange } from '../../document/shot.js';

/**
 * An attachment that runs the path once over the range at even speed, facing along it. In laps, so that
 * it stays "once along the path" however the path is edited.
 *
 * @param rounds whether it goes round a closed path in a loop: then it is round at the frame after the last, which is the first again
 */
export function newAttachment(pathId: string, range: FrameRange, rounds = false): Attachment {
  const plain = defaultsOf(Attachment);
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
        { ...key, frame: Math.max(range.last + (rounds ? 1 : 0), range.first + 1), value: 1 },
      ],
    },
  };
}
