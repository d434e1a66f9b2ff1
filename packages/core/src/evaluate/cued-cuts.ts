import { eachAction } from '../document/each-action.js';
import type { Cut } from '../document/shot-camera.js';
import type { Cue } from '../document/shot-cue.js';
import type { Shot } from '../document/shot.js';
import { mapFrames } from '../timing/map-frames.js';
import { wholeRetimeStep } from '../timing/retiming.js';

/**
 * The cuts of a shot with those that cues make, in the order of their frames; of two at one frame the cue's holds.
 *
 * @param moment the frame of the work at which a cue comes; null where it does not
 */
export function cutsOf(shot: Shot, moment: (cue: Cue) => number | null): readonly Cut[] {
  const shown = mapFrames(wholeRetimeStep(shot), shot.range);
  const cued = eachAction(shot.cues).flatMap((cue): Cut[] => {
    if (cue.off || cue.does.kind !== 'camera') return [];
    const at = moment(cue);
    const frame = at === null ? null : shown.shown(at);
    // A picture is a whole frame: the first that is seen after it.
    return frame === null || frame > shot.range.last
      ? []
      : [{ frame: Math.ceil(frame - 1e-6), camera: cue.does.rider }];
  });
  if (cued.length === 0) return shot.cuts;
  const byFrame = new Map([...shot.cuts, ...cued].map((cut) => [cut.frame, cut]));
  return [...byFrame.values()].sort((a, b) => a.frame - b.frame);
}
