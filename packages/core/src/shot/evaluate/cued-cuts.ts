import { eachAction } from '../../document/each-action.js';
import type { Cut } from '../../document/shot-camera.js';
import type { Cue } from '../../document/shot-cue.js';
import type { Shot } from '../../document/shot.js';

/**
 * The cuts of a shot with those that cues make, in the order of their frames; of two at one frame the cue's holds.
 *
 * @param shownAt the frame of the shot at which a cue comes; null where it does not
 */
export function cutsWithCues(
  { cuts, cues, range }: Pick<Shot, 'cuts' | 'cues' | 'range'>,
  shownAt: (cue: Cue) => number | null,
): readonly Cut[] {
  const cued = eachAction(cues).flatMap((cue): Cut[] => {
    if (cue.off || cue.action.kind !== 'camera') return [];
    const frame = shownAt(cue);
    // A picture is a whole frame: the first that is seen after it.
    return frame === null || frame > range.last
      ? []
      : [{ frame: Math.ceil(frame - 1e-6), camera: cue.action.rider }];
  });
  if (cued.length === 0) return cuts;
  const byFrame = new Map([...cuts, ...cued].map((cut) => [cut.frame, cut]));
  return [...byFrame.values()].sort((a, b) => a.frame - b.frame);
}
