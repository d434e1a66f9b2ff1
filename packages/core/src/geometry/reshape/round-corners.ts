import { vec3 } from 'gl-matrix';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { findKinks, type Kink } from '../path/path-facts.js';
import { toLocal } from '../path/placement.js';
import { changeBasis } from './change-basis.js';
import { insertPoint } from './insert-point.js';

/** A corner takes no more than this part of the way to the next joint. */
const MOST_PART = 0.45;
/** Tolerance of the fit for a basis that cubics cannot express, metres. */
const FIT = 1e-3;

/**
 * The path with its corners made round: each is cut off so far before and behind it, and a cubic laid between that leaves and arrives
 * as the path does there; on straight sides a near circle. The path becomes a Bézier path; away from its corners it stays the same curve.
 *
 * @param leastDeg corners of less stay
 * @param most     metres before and behind a corner that it may take
 * @throws PathError where the path has no curve
 */
export function roundCorners(path: ShotPath, leastDeg: number, most: number): ShotPath {
  const before = compilePath(path);
  const sharp = findKinks(before).filter(({ angleDeg }) => angleDeg > leastDeg);
  if (sharp.length === 0) return path;
  const joints = [...before.joints].sort((a, b) => a - b);
  const cuts = sharp.map((kink) => ({
    kink,
    reach: Math.min(most, MOST_PART * roomAbout(kink, joints, before)),
  }));
  // From the far end back, so that distances before a corner stay as they are.
  return cuts
    .sort((a, b) => b.kink.distance - a.kink.distance)
    .reduce(
      (round, { kink, reach }) => withArc(round, kink.distance, reach),
      changeBasis(path, 'bezier', FIT),
    );
}

/** How far it is from a corner to the nearest joint, metres. */
function roomAbout(
  { distance }: Kink,
  joints: readonly number[],
  { closed, length }: { readonly closed: boolean; readonly length: number },
): number {
  const apart = joints
    .map((joint) => Math.abs(joint - distance))
    .map((gap) => (closed ? Math.min(gap, length - gap) : gap));
  return Math.min(length / 2, ...apart.filter((gap) => gap > 1e-9 * length));
}

function withArc(path: ShotPath, at: number, reach: number): ShotPath {
  const curve = compilePath(path);
  const { length } = curve;
  const corner = path.points.findIndex((_, i) => i === nearestPoint(path, curve.pointDistances, at, length));
  const [from, to] = [at - reach, at + reach];
  const [into, out]: Vec3[] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  curve.tangent(from, into);
  curve.tangent(to, out);
  const after = insertPoint(path, to);
  // A point put in further along leaves the corner where it is in the list, unless it comes round before it.
  const moved = corner + (after.index <= corner ? 1 : 0);
  const both = insertPoint(after.path, from < 0 ? from + length : from);
  const gone = moved + (both.index <= moved ? 1 : 0);
  const second = after.index + (both.index <= after.index ? 1 : 0);
  const turn = Math.acos(Math.max(-1, Math.min(1, vec3.dot(into, out))));
  // A circle's arc by a cubic (4/3 tan θ/4 of its radius); the radius by how far the corner is cut off.
  const handle = reach * (turn < 1e-6 ? 2 / 3 : ((4 / 3) * Math.tan(turn / 4)) / Math.tan(turn / 2));
  const points = both.path.points.map((point, i) => {
    if (i === both.index)
      return { ...point, handles: 'smooth' as const, out: turnedInto(path, into, handle) };
    if (i === second) return { ...point, handles: 'smooth' as const, in: turnedInto(path, out, -handle) };
    return point;
  });
  return { ...both.path, points: points.filter((_, i) => i !== gone) };
}

/** A step in the world, in the path's own space. */
function turnedInto({ transform }: ShotPath, way: Vec3, size: number): Vec3 {
  const [tip, root] = [way.map((value) => value * size) as Vec3, [0, 0, 0] as Vec3].map((place) =>
    toLocal(transform, place),
  );
  return vec3.subtract([0, 0, 0], tip, root) as Vec3;
}

/** Which point of the list is at a distance. */
function nearestPoint(path: ShotPath, places: ArrayLike<number>, at: number, length: number): number {
  const active = path.points.flatMap((point, i) => (point.off ? [] : [i]));
  const apart = (n: number) => {
    const gap = Math.abs(places[n] - at);
    return path.closed ? Math.min(gap, length - gap) : gap;
  };
  return active.reduce((best, i, n) => (apart(n) < apart(active.indexOf(best)) ? i : best), active[0]);
}
