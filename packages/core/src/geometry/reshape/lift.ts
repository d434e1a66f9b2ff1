import type { ShotPath } from '../../document/shot-path.js';
import { mapPoints } from './transform-path.js';

/** The path, or some of its points, raised by a height in metres; down where it is below nought. */
export function liftPath(path: ShotPath, height: number, chosen?: ReadonlySet<number>): ShotPath {
  const all = chosen === undefined || chosen.size === 0;
  return mapPoints(path, ([x, y, z], i) => (all || chosen.has(i) ? [x, y + height, z] : [x, y, z]));
}

/** All points brought to one height in the world; handles are made level with them. */
export function levelPath(path: ShotPath, height: number): ShotPath {
  return mapPoints(path, ([x, , z]) => [x, height, z]);
}
