import type { Vec3 } from '../math/vec.js';
import type { ShotPath } from '../document/shot-path.js';

/** The path with the chosen points moved by a step, in the path's own space; handles go along. */
export function movePoints(path: ShotPath, chosen: ReadonlySet<number>, step: Vec3): ShotPath {
  return {
    ...path,
    points: path.points.map((point, i) => {
      if (!chosen.has(i)) return point;
      const [x, y, z] = point.position;
      return { ...point, position: [x + step[0], y + step[1], z + step[2]] };
    }),
  };
}
