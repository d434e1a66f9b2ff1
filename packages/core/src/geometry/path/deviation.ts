import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';
import { nearestToPoint } from './nearest.js';

const FEWEST = 200;
const MOST = 1_500;

/**
 * Largest distance between two curves, metres: of any point of one from the other, sampled evenly on both.
 *
 * @param enough stop looking once they are found to be farther apart than this
 */
export function deviation(a: CompiledPath, b: CompiledPath, enough = Infinity): number {
  const there = farthest(a, b, enough);
  return there > enough ? there : Math.max(there, farthest(b, a, enough));
}

function farthest(from: CompiledPath, to: CompiledPath, enough: number): number {
  const count = Math.min(MOST, Math.max(FEWEST, 6 * from.segments.count));
  const here: Vec3 = [0, 0, 0];
  let most = 0;
  for (let i = 0; i <= count && most <= enough; i++) {
    from.position((from.length * i) / count, here);
    most = Math.max(most, nearestToPoint(to, here).gap);
  }
  return most;
}
