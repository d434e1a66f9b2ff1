import type { Cue } from '../document/shot-cue.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { hasOwnPace } from '../timing/index.js';
import type { Finding } from './finding.js';

/** Cues that wait for what does not come, or act on what is not there. */
export function findIdleCues(evaluated: EvaluatedShot): Finding[] {
  return evaluated.shot.cues.flatMap((cue, i) => {
    const message = cue.off ? null : idleness(evaluated, cue);
    return message ? [{ severity: 'attention', at: `cues[${i}]`, message } satisfies Finding] : [];
  });
}

function idleness(evaluated: EvaluatedShot, cue: Cue): string | null {
  const { does, keys, name } = cue;
  const rider = evaluated.shot.riders.find(({ id }) => id === does.rider);
  if (keys.length === 0) return `The cue "${name}" has no keys, so it does nothing.`;
  if (does.kind === 'turn' || does.kind === 'move') return null;
  const badge = rider?.badge ?? does.rider;
  if (!rider?.hitch) return `The cue "${name}" waits to move ${badge}, which rides no path.`;
  if (!hasOwnPace(rider.hitch)) {
    return `The cue "${name}" does nothing to ${badge}, which goes by another rider's timing; cue that one.`;
  }
  const stops = evaluated.timing(rider)?.ownStops.length ?? 0;
  if (does.kind === 'stopEnd' && stops <= does.stop) {
    return `The cue "${name}" ends stop ${does.stop + 1} of ${badge}, which makes ${stops === 0 ? 'none' : stops}.`;
  }
  if (evaluated.moment(cue) !== null) return null;
  return `The cue "${name}" never comes: its value does not reach 1 in the shot, and ${badge} waits for ever.`;
}
