import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { PathError } from '../geometry/path/path-error.js';
import { found, type RawFinding } from './finding.js';

/** Paths that make no curve: a fault where something rides them, else a note. */
export function findNoCurve({ shot, paths }: EvaluatedShot): RawFinding[] {
  return shot.paths.flatMap((path): RawFinding[] => {
    const curve = paths.get(path.id);
    if (!(curve instanceof PathError)) return [];
    const waiting = shot.riders.filter((rider) => rider.attachment?.path === path.id);
    return [
      found('no-curve', waiting.length > 0 ? 'fault' : 'note', { path: path.id }, ({ rider: badge }) =>
        waiting.length > 0
          ? `${curve.message} Not moving until then: ${waiting.map(({ id }) => badge(id)).join(', ')}.`
          : curve.message,
      ),
    ];
  });
}
