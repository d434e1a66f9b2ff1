import type { Chassis } from '../../document/shot-rider.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { directionAlong } from './beyond-ends.js';
import type { PathMotion } from './path-motion.js';

/** Distance along the path, metres. */
export interface AxleDistances {
  /** Of the rider's origin. */
  origin: number;
  frontAxle: number;
  rearAxle: number;
}

/** Steps that a foot on the curve is looked for in, and how near it has to come, metres. */
const STEPS = 30;
const NEAR = 1e-9;

/**
 * Distances along the path of a rider's origin and axles, each at the point of the curve whose normal plane holds it;
 * offsets to the side and up are left out.
 *
 * @param chassis where its axles are, metres of the world
 */
export function compileAxleDistances(
  { path, pace, placement, travelSign }: PathMotion,
  chassis: Chassis,
): (frame: number, out: AxleDistances) => void {
  const way = new Float64Array(12);
  const place = new Float64Array(3);
  return (frame, out) => {
    const distance = pace.distance(frame);
    placement.frame(distance, way);
    const at = (ahead: number): number => {
      for (let k = 0; k < 3; k++) place[k] = way[k] + travelSign * ahead * way[9 + k];
      return squareTo(path, place, distance);
    };
    out.origin = at(0);
    out.frontAxle = at(chassis.frontAxle);
    out.rearAxle = at(chassis.rearAxle);
  };
}

const foot = new Float64Array(12);

/** The distance from which a place lies square to the curve, looked for from one near by. */
function squareTo(path: CompiledPath, place: Float64Array, from: number): number {
  let s = from;
  for (let i = 0; i < STEPS; i++) {
    directionAlong(path, s, foot);
    let ahead = 0;
    for (let k = 0; k < 3; k++) ahead += (place[k] - foot[k]) * foot[9 + k];
    s += ahead;
    if (Math.abs(ahead) < NEAR) break;
  }
  return s;
}
