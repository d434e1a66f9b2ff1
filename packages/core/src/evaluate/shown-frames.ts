import { timingCues } from '../document/rider-graph.js';
import type { Rider } from '../document/shot-rider.js';
import { compileRetiming, shownAt } from '../timing/retiming.js';
import type { EvaluatedShot } from './evaluate-shot.js';

/** From frames of a rider's own timing to frames of the shot, and back. */
export interface ShownFrames {
  /** Null where the shot does not show it. */
  shown(frame: number): number | null;
  own(frame: number): number;
}

const SAME: ShownFrames = { shown: (frame) => frame, own: (frame) => frame };
/** Frames beyond the range in which keys are still looked for. */
const MARGIN = 1000;

/** When a rider's own keys are on the shot's clock: later where it waits for a cue, elsewhere where time is bent. */
export function shownFrames(evaluated: EvaluatedShot, rider: Rider): ShownFrames {
  const { range } = evaluated.shot;
  return compileRetiming(evaluated.shot, rider.id).reduceRight<ShownFrames>(
    (inner, retiming) => ({
      shown(frame) {
        const within = inner.shown(frame);
        return within === null ? null : shownAt(retiming, within, range.first - MARGIN, range.last + MARGIN);
      },
      own: (frame) => inner.own(retiming.source(frame)),
    }),
    cuedFrames(evaluated, rider),
  );
}

/** Each cue shifts what comes after it. */
function cuedFrames(evaluated: EvaluatedShot, rider: Rider): ShownFrames {
  const begins = rider.hitch?.pace.keys[0]?.frame ?? rider.hitch?.pace.start.frame ?? 0;
  const stops = [...evaluated.ownStops(rider)];
  return timingCues(evaluated.shot.cues, rider.id).reduce<ShownFrames>((before, { does }, i, cues) => {
    const go = evaluated.moment(cues[i]);
    const stop = does.kind === 'start' ? { from: -Infinity, to: begins } : stops[does.stop];
    if (stop === undefined) return before;
    const ends = before.shown(stop.to) ?? stop.to;
    if (go === null) {
      return {
        ...before,
        shown: (frame) =>
          frame <= stop.from || (does.kind === 'start' && frame <= begins) ? before.shown(frame) : null,
      };
    }
    const later = Math.max(go, before.shown(stop.from) ?? go) - ends;
    return {
      shown(frame) {
        const at = before.shown(frame);
        return at === null || frame < stop.to ? at : at + later;
      },
      own: (frame) => before.own(frame < ends + later ? Math.min(frame, ends) : frame - later),
    };
  }, SAME);
}
