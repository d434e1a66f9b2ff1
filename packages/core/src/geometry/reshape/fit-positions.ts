import { vec3 } from 'gl-matrix';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { bezierPath } from './bezier-path.js';
import type { Bezier } from '../path/bezier.js';
import { fitCubics } from './fit-cubics.js';

/**
 * A Bézier path within a tolerance of points in order, in place of another path.
 *
 * @param positions  x, y, z of each place in turn, at least two that stand apart; a closed path's last place
 *                   is not its first again
 * @param tolerance  metres, above 0
 * @param rollAt     degrees of roll at place i
 * @param onProgress told the part that is done
 */
export function fitPositions(
  path: ShotPath,
  positions: Float64Array,
  closed: boolean,
  tolerance: number,
  rollAt: (i: number) => number = () => 0,
  onProgress?: (part: number) => void,
): ShotPath {
  const round = closed ? Float64Array.from([...positions, ...positions.subarray(0, 3)]) : positions;
  const tangents = chordTangents(round, closed);
  const fitted = fitCubics({ positions: round, tangents }, tolerance, onProgress);
  const pieces: Bezier[] = fitted.map(({ bezier }) => bezier);
  const last = fitted.length - 1;
  return bezierPath(path, pieces, closed, (i) => rollAt(i <= last ? fitted[i].from : fitted[last].to));
}

/** Unit tangents of places by their neighbours; where there are none on one side, by a parabola through three. */
function chordTangents(places: Float64Array, closed: boolean): Float64Array {
  const n = places.length / 3;
  const out = new Float64Array(places.length);
  const at = (i: number): Vec3 => [places[3 * i], places[3 * i + 1], places[3 * i + 2]];
  const direction: Vec3 = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const ends = i === 0 || i === n - 1;
    if (ends && closed) vec3.subtract(direction, at(1), at(n - 2));
    else if (ends && n > 2) {
      const [a, b, c] = i === 0 ? [0, 1, 2] : [n - 1, n - 2, n - 3];
      vec3.subtract(direction, vec3.scale([0, 0, 0], at(b), 4), vec3.scale([0, 0, 0], at(a), 3));
      vec3.subtract(direction, direction, at(c));
      if (i > 0) vec3.negate(direction, direction);
    } else vec3.subtract(direction, at(Math.min(n - 1, i + 1)), at(Math.max(0, i - 1)));
    const size = vec3.length(direction);
    if (size > 0) vec3.scale(direction, direction, 1 / size);
    else if (i > 0) vec3.copy(direction, [out[3 * i - 3], out[3 * i - 2], out[3 * i - 1]]);
    else vec3.set(direction, 0, 0, 1);
    out.set(direction, 3 * i);
  }
  return out;
}
