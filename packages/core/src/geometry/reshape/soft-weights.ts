import type { ShotPath } from '../../document/shot-path.js';
import { compiledPathOf } from '../path/compiled-path-of.js';
import { PathError } from '../path/path-error.js';

/**
 * How much of a move every point of a path takes part in: the chosen ones all of it; others, measured along the path to the nearest chosen one, less
 * the further they are, by half a cosine, and none from a radius on. Points that are off take no part, nor others on a path without a curve.
 *
 * @param radius metres along the path; 0 for the chosen points alone
 * @returns 0 to 1 a point
 */
export function softWeights(path: ShotPath, chosen: ReadonlySet<number>, radius: number): number[] {
  const weights = path.points.map((_, i) => (chosen.has(i) ? 1 : 0));
  const curve = radius > 0 ? compiledPathOf(path) : null;
  if (curve === null || curve instanceof PathError) return weights;
  let next = 0;
  const distances = path.points.map((point) => (point.off ? NaN : curve.pointDistances[next++]));
  const from = [...chosen].map((i) => distances[i]).filter((distance) => !Number.isNaN(distance));
  return weights.map((weight, i) => {
    if (weight === 1 || Number.isNaN(distances[i])) return weight;
    const far = from.reduce((least, distance) => {
      const apart = Math.abs(distances[i] - distance);
      return Math.min(least, apart, curve.closed ? curve.length - apart : Infinity);
    }, Infinity);
    return far < radius ? (1 + Math.cos((Math.PI * far) / radius)) / 2 : 0;
  });
}
