import type { Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath, FrameReference } from '../../geometry/path/compiled-path.js';

/** By how much a distance lies past an end of an open path, metres; negative before its start. */
export function pastEnd(path: CompiledPath, s: number): number {
  if (path.closed) return 0;
  return s < 0 ? s : s > path.length ? s - path.length : 0;
}

/** The frame of travel at a distance; past the ends of an open path it goes straight on. */
export function frameAlong(
  path: CompiledPath,
  s: number,
  reference: FrameReference,
  out: Float64Array,
): void {
  path.frame(s, out, 0, reference);
  const past = pastEnd(path, s);
  if (past !== 0) for (let k = 0; k < 3; k++) out[k] += past * out[9 + k];
}

/** Position and forward of the same, without left and up. */
export function directionAlong(path: CompiledPath, s: number, out: Float64Array): void {
  path.way(s, out, 0);
  const past = pastEnd(path, s);
  if (past !== 0) for (let k = 0; k < 3; k++) out[k] += past * out[9 + k];
}

/** The position at a distance; past the ends of an open path it goes straight on. */
export function positionAlong(path: CompiledPath, s: number, out: Vec3): void {
  path.position(s, out);
  const past = pastEnd(path, s);
  if (past === 0) return;
  path.tangent(s, tangent);
  for (let k = 0; k < 3; k++) out[k] += past * tangent[k];
}

const tangent: Vec3 = [0, 0, 0];
