import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import { PathError } from '../path/path-error.js';
import type { Finding } from './finding.js';

/** Paths that make no curve: an error where something rides them, else worth attention. */
export function findNoCurve({ shot, paths }: EvaluatedShot): Finding[] {
  return shot.paths.flatMap((path, i): Finding[] => {
    const curve = paths.get(path.id);
    if (!(curve instanceof PathError)) return [];
    const riders = shot.riders.filter((rider) => rider.hitch?.path === path.id);
    const waiting = riders.map((rider) => rider.badge).join(', ');
    const severity = riders.length > 0 ? 'error' : 'attention';
    const message = riders.length > 0 ? `${curve.message} At rest until then: ${waiting}.` : curve.message;
    return [{ severity, at: `paths[${i}]`, message }];
  });
}
