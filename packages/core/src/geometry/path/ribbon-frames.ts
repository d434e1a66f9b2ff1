import type { CompiledPath } from './compiled-path.js';

const FEWEST = 64;
const MOST = 3_000;
const PER_METRE = 2;

/**
 * Frames along a path close enough to draw it as a smooth ribbon.
 *
 * @returns position, left, up and forward of each place in turn, twelve numbers a place, at even distances
 */
export function ribbonFrames(curve: CompiledPath): Float64Array {
  const count = Math.min(MOST, Math.max(FEWEST, Math.ceil(curve.length * PER_METRE))) + 1;
  const out = new Float64Array(12 * count);
  for (let i = 0; i < count; i++) {
    // The end of a closed path is its start; a hair before it keeps the last frame's own tangent.
    curve.frame(Math.min((curve.length * i) / (count - 1), curve.length * (1 - 1e-12)), out, 12 * i);
  }
  return out;
}
