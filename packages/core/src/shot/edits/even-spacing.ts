import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { curveRidden } from '../../geometry/path/compiled-path-of.js';

/**
 * Spacing of a rider and `count` copies in file behind it, metres, if all are spaced evenly round its path.
 *
 * @returns null where the path does not close
 */
export function evenSpacing(shot: Pick<Shot, 'paths'>, leader: Rider, count: number): number | null {
  const curve = curveRidden(shot, leader);
  return curve?.closed ? curve.length / (count + 1) : null;
}
