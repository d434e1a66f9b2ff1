import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { Rider } from '../document/shot-rider.js';
import type { Hitch } from '../document/shot-hitch.js';
import { metresPerValue } from '../pace/change-unit.js';
import { compiledPaceOf } from '../pace/compiled-pace-of.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { mapFrames } from '../timing/index.js';
import { PathError } from '../path/path-error.js';
import type { Finding } from './finding.js';

/** Keys or speeds that ask for a place an open path does not have: the rider waits at its end. */
export function findPastTheEnd(evaluated: EvaluatedShot): Finding[] {
  const { shot, paths } = evaluated;
  return shot.riders.flatMap((rider, i): Finding[] => {
    const path = rider.hitch && paths.get(rider.hitch.path);
    if (!rider.hitch || !path || path instanceof PathError || path.closed) return [];
    const { keys, unit, mode } = rider.hitch.pace;
    if (mode === 'speed')
      return runsOut(evaluated, rider, rider.hitch, path, `riders[${i}].hitch.pace.speeds`);
    if (mode !== 'keys') return [];
    const most = path.length / metresPerValue(rider.hitch.pace, path);
    const slack = most * 1e-9;
    const k = keys.findIndex((key) => key.value < -slack || key.value > most + slack);
    if (k < 0) return [];
    return [
      {
        severity: 'attention',
        at: `riders[${i}].hitch.pace.keys[${k}].value`,
        message: `${rider.badge} is sent to ${Number(keys[k].value.toFixed(3))} ${unit}, but the path runs from 0 to ${most.toFixed(3)}; it waits at the end.`,
      },
    ];
  });
}

/** Speeds that lead past an end, where the rider waits and does not run on. */
function runsOut(
  { shot, timing }: EvaluatedShot,
  rider: Rider,
  { pace }: Hitch,
  path: CompiledPath,
  at: string,
): Finding[] {
  const { length } = path;
  const run = compiledPaceOf(pace, shot.fps, path);
  const { own } = mapFrames(timing(rider)?.steps ?? [], shot.range);
  for (let frame = shot.range.first; frame <= shot.range.last; frame++) {
    const place = run.distance(own(frame));
    const end = place < -1e-6 ? 'start' : place > length + 1e-6 ? 'end' : null;
    if (end === null || (end === 'start' ? pace.before : pace.after) === 'run') continue;
    return [
      {
        severity: 'attention',
        at,
        message: `${rider.badge} comes to the ${end} of its path by frame ${frame} and waits there; the path runs from 0 to ${length.toFixed(3)} m.`,
      },
    ];
  }
  return [];
}
