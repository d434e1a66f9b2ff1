import type { CompiledPath } from './compiled-path.js';

/**
 * Points along a path at even distances, both ends included, for drawing.
 *
 * @returns x, y, z of each point in turn
 */
export function pathOutline(path: CompiledPath, count: number): Float64Array {
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i++) {
    path.position((path.length * i) / (count - 1), out.subarray(3 * i));
  }
  return out;
}
