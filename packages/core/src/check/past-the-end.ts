import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { Rider } from '../document/shot-rider.js';
import { sourceFrame } from '../timing/index.js';
import { PathError } from '../path/path-error.js';
import type { Finding } from './finding.js';

/** Keys or speeds that ask for a place an open path does not have: the rider waits at its end. */
export function findPastTheEnd(evaluated: EvaluatedShot): Finding[] {
  const { shot, paths } = evaluated;
  return shot.riders.flatMap((rider, i): Finding[] => {
    const path = rider.hitch && paths.get(rider.hitch.path);
    if (!rider.hitch || !path || path instanceof PathError || path.closed) return [];
    const { keys, unit, mode } = rider.hitch.pace;
    if (mode === 'speed') return runsOut(evaluated, rider, path.length, `riders[${i}].hitch.pace.speeds`);
    if (mode !== 'keys') return [];
    const most = unit === 'laps' ? 1 : path.length;
    const slack = most * 1e-9;
    const k = keys.findIndex((key) => key.value < -slack || key.value > most + slack);
    if (k < 0) return [];
    return [
      {
        severity: 'attention',
        at: `riders[${i}].hitch.pace.keys[${k}].value`,
        message: `${rider.badge} is sent to ${keys[k].value} ${unit}, but the path runs from 0 to ${most.toFixed(3)}; it waits at the end.`,
      },
    ];
  });
}

function runsOut({ shot, motion }: EvaluatedShot, rider: Rider, length: number, at: string): Finding[] {
  const run = motion(rider);
  for (let frame = shot.range.first; run && frame <= shot.range.last; frame++) {
    const place = run.distance(sourceFrame(shot, frame));
    if (place >= -1e-6 && place <= length + 1e-6) continue;
    const end = place < 0 ? 'start' : 'end';
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
