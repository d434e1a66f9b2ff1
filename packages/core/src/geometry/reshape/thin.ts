import type { ShotPath } from '../../document/shot-path.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { fitCubics } from './fit-cubics.js';
import { sampleStretch, smoothStretches } from './sample-stretch.js';

/**
 * The path with as few points as keep it within a tolerance of where it ran, as Bézier; kinks stay kinks.
 *
 * @param tolerance metres, above 0
 * @throws PathError where the path has no curve
 */
export function thinPath(path: ShotPath, tolerance: number): ShotPath {
  return thinCurve(path, compilePath(path), tolerance);
}

/** A Bézier path within a tolerance of a curve, in the place of another path. */
export function thinCurve(path: ShotPath, curve: CompiledPath, tolerance: number): ShotPath {
  const pieces: Bezier[] = [];
  const starts: number[] = [];
  for (const stretch of smoothStretches(curve)) {
    const samples = sampleStretch(curve, stretch);
    for (const piece of fitCubics(samples, tolerance)) {
      pieces.push(piece.bezier);
      starts.push(samples.distances[piece.from]);
    }
  }
  // The end of a closed curve is its beginning, to the last digit.
  if (curve.closed) {
    const last = pieces.length - 1;
    pieces[last] = [pieces[last][0], pieces[last][1], pieces[last][2], pieces[0][0]];
  }
  const rollAt = (i: number) => curve.rollDegrees(starts[i] ?? curve.length);
  return bezierPath(path, pieces, curve.closed, rollAt);
}
