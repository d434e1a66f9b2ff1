import type { ShotPath } from '../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { nearestToPoint } from '../path/nearest.js';
import { PathError } from '../path/path-error.js';

/**
 * A path after its shape was changed, with its marks brought to the places nearest to where they stood. A
 * path without marks, or without a curve before or after, is left as it is.
 */
export function keepMarks(before: ShotPath, after: ShotPath): ShotPath {
  if (before.marks.length === 0) return after;
  try {
    const from = compilePath(before);
    const to = compilePath(after);
    const here: Vec3 = [0, 0, 0];
    const marks = before.marks.map((mark) => {
      from.position(mark.distance, here);
      return { ...mark, distance: nearestToPoint(to, here).distance };
    });
    return { ...after, marks };
  } catch (error) {
    if (error instanceof PathError) return after;
    throw error;
  }
}
