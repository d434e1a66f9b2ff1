import { vec3 } from 'gl-matrix';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { PathError } from '../path/path-error.js';
import { toLocal, toWorld } from '../path/placement.js';
import { changeBasis } from './change-basis.js';
import { insertPoint } from './insert-point.js';

/** Tolerance of the fit for a basis that cubics cannot express, metres. */
const FIT = 1e-3;

/**
 * The path led aside about a place: there by so many metres to the left, level, and less and less (a raised cosine) until it is on
 * its old way again. Three points are put in for it, where there are none; the path becomes a Bézier path, and stays smooth where it was.
 *
 * @param at    metres along the path
 * @param left  metres; to the right where it is below 0
 * @param reach metres before and after the place
 * @throws PathError where the path has no curve
 */
export function detourPath(path: ShotPath, at: number, left: number, reach: number): ShotPath {
  const curve = compilePath(path);
  const { closed, length } = curve;
  const within = (s: number) => (closed ? curve.wrap(s) : Math.max(0, Math.min(length, s)));
  const ends = [at - reach, at, at + reach].map(within);
  const cut = ends.reduce(withPoint, changeBasis(path, 'bezier', FIT));
  const after = compilePath(cut);
  const frame = new Float64Array(12);
  let n = 0;
  const points = cut.points.map((point) => {
    if (point.off) return point;
    const place = after.pointDistances[n++];
    let apart = Math.abs(place - at);
    if (closed) apart = Math.min(apart, length - apart);
    if (apart >= reach) return point;
    const aside = (left * (1 + Math.cos((Math.PI * apart) / reach))) / 2;
    after.frame(place, frame, 0);
    const level: Vec3 = [frame[3], 0, frame[5]];
    vec3.normalize(level, level);
    const world = vec3.scaleAndAdd([0, 0, 0], toWorld(cut.transform, point.position), level, aside) as Vec3;
    return { ...point, position: toLocal(cut.transform, world) };
  });
  return { ...cut, points };
}

/** The same curve with a point at a place, unless one is there. */
function withPoint(path: ShotPath, at: number): ShotPath {
  try {
    return insertPoint(path, at).path;
  } catch (error) {
    if (error instanceof PathError) return path;
    throw error;
  }
}
