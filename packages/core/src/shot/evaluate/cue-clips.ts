import type { CueAction } from '../../document/shot-cue.js';
import { sampleClip } from '../../character/gait/sample-clip.js';
import { smoothStep } from '../../character/gait/idle-spans.js';
import type { PlayedClip } from '../../character/gait/clip-blocks.js';
import type { Clip } from '../../character/hierarchy/node-hierarchy.js';
import { modulo } from '../../geometry/math/angle.js';
import { bisect, lastAtMost } from '../../geometry/math/search.js';

/** A value above this plays a clip. */
const ABOVE = 1e-6;

/** Clip played by a cue: once whenever its value reaches 1, or repeatedly as long as it is above 0. */
export function cuedClip(
  clip: Clip,
  { plays, blend }: Pick<CueAction, 'plays' | 'blend'>,
  value: (frame: number) => number,
  { first, last, fps }: { readonly first: number; readonly last: number; readonly fps: number },
): PlayedClip {
  const once = plays === 'once';
  let kept: Float64Array | null = null;
  const begins = () => (kept ??= risesTo(value, once ? 1 : ABOVE, first, last));
  /** Seconds since it began to play; below 0 where it does not. */
  const since = (frame: number): number => {
    const all = begins();
    const i = lastAtMost(all, frame);
    return all.length === 0 || all[i] > frame ? -1 : (frame - all[i]) / fps;
  };
  return {
    clip,
    weight(frame) {
      if (!once) return Math.min(1, Math.max(0, value(frame)));
      const gone = since(frame);
      if (gone < 0 || gone >= clip.seconds) return 0;
      const over = Math.min(blend, clip.seconds / 2);
      if (over <= 0) return 1;
      return smoothStep(Math.min(1, gone / over)) * smoothStep(Math.min(1, (clip.seconds - gone) / over));
    },
    pose(frame, pose) {
      const gone = Math.max(0, since(frame));
      sampleClip(clip, once ? gone : modulo(gone, Math.max(1e-6, clip.seconds)), pose);
    },
  };
}

/** The frames of the range at which a value comes up to a limit from below. */
function risesTo(value: (frame: number) => number, limit: number, first: number, last: number): Float64Array {
  const found: number[] = value(first) >= limit ? [first] : [];
  for (let frame = first + 1; frame <= last + 1; frame++) {
    if (value(frame) >= limit && value(frame - 1) < limit)
      found.push(bisect((at) => value(at) >= limit, frame - 1, frame));
  }
  return Float64Array.from(found);
}
