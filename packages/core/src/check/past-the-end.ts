import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { PathError } from '../path/path-error.js';
import type { Finding } from './finding.js';

/** Keys that ask for a place an open path does not have: the rider waits at its end. */
export function findPastTheEnd({ shot, paths }: EvaluatedShot): Finding[] {
  return shot.riders.flatMap((rider, i): Finding[] => {
    const path = rider.hitch && paths.get(rider.hitch.path);
    if (!rider.hitch || !path || path instanceof PathError || path.closed) return [];
    const { keys, unit } = rider.hitch.pace;
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
