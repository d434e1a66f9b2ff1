import { vec3 } from 'gl-matrix';
import { defaultsOf } from '../../document/defaults.js';
import { PathPoint, type ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { PathError } from '../path/path-error.js';
import { toLocal, toWorld } from '../path/placement.js';

/** A corner turned by less than this, or nearly back on itself, has no arc, radians. */
const STRAIGHT = 1e-6;

/** A corner with the arc that takes its place: how far before and behind it that begins and ends. */
interface Corner {
  readonly place: Vec3;
  readonly reach: number;
  /** Half of what it turns by, radians; 0 where it stays a corner. */
  readonly half: number;
  readonly source: PathPoint;
}

/**
 * Straight runs with arcs for corners, exactly round in the world: a NURBS of degree 2, in which a straight and an arc are a stretch
 * each. Where two arcs would reach over each other both are made as much smaller as it takes.
 *
 * @param radius metres, above 0
 * @param chosen indexes of the points to round; all of them where it is empty
 * @throws PathError where the path is no straight runs, or none of its corners can be rounded
 */
export function arcCorners(path: ShotPath, radius: number, chosen: ReadonlySet<number>): ShotPath {
  if (path.basis !== 'polyline')
    throw new PathError(`"${path.name}" is no straight runs; only their corners have arcs of a radius.`);
  const active = path.points.flatMap((point, i) => (point.off ? [] : [{ point, i }]));
  const places = active.map(({ point }) => toWorld(path.transform, point.position));
  const n = places.length;
  const neighbour = (i: number, side: -1 | 1): Vec3 | null =>
    path.closed ? places[(i + side + n) % n] : (places[i + side] ?? null);
  const corners = active.map(({ point, i: index }, i): Corner => {
    const [before, after] = [neighbour(i, -1), neighbour(i, 1)];
    const wanted = (chosen.size === 0 || chosen.has(index)) && before !== null && after !== null;
    const half = wanted ? turnAt(before, places[i], after) / 2 : 0;
    const isRound = half > STRAIGHT && half < Math.PI / 2 - STRAIGHT;
    return {
      place: places[i],
      half: isRound ? half : 0,
      reach: isRound ? radius * Math.tan(half) : 0,
      source: point,
    };
  });
  if (corners.every(({ half }) => half === 0))
    throw new PathError(`"${path.name}" has no corner to round there.`);
  return { ...path, ...nurbsOf(path, fitted(corners, path.closed)) };
}

/** How much a run turns at a place, radians. */
function turnAt(before: Vec3, place: Vec3, after: Vec3): number {
  const into = vec3.subtract([0, 0, 0], place, before);
  const out = vec3.subtract([0, 0, 0], after, place);
  return vec3.length(into) === 0 || vec3.length(out) === 0 ? 0 : vec3.angle(into, out);
}

/** Corners whose arcs leave each other room on the straights between them. */
function fitted(corners: readonly Corner[], closed: boolean): Corner[] {
  const n = corners.length;
  const parts = corners.map(() => 1);
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const next = (i + 1) % n;
    const room = vec3.distance(corners[i].place, corners[next].place);
    const wanted = corners[i].reach + corners[next].reach;
    if (wanted <= room) continue;
    parts[i] = Math.min(parts[i], room / wanted);
    parts[next] = Math.min(parts[next], room / wanted);
  }
  return corners.map((corner, i) => ({ ...corner, reach: corner.reach * parts[i] }));
}

/** Straights and arcs end to end as one rational curve of degree 2. */
function nurbsOf(
  { transform, closed }: ShotPath,
  corners: readonly Corner[],
): Pick<ShotPath, 'basis' | 'degree' | 'knots' | 'points'> {
  const points: PathPoint[] = [];
  const put = (place: Vec3, weight: number, { roll }: PathPoint) =>
    points.push({ ...defaultsOf(PathPoint), position: toLocal(transform, place), weight, roll });
  const n = corners.length;
  const towards = (i: number, to: number): Vec3 => {
    const { place, reach } = corners[i];
    const way = vec3.subtract([0, 0, 0], corners[(to + n) % n].place, place);
    return vec3.scaleAndAdd([0, 0, 0], place, vec3.normalize(way, way), reach) as Vec3;
  };
  /** Begin and end of a corner's arc; equal if it stays a corner. */
  const enters = (i: number): Vec3 => (corners[i].half > 0 ? towards(i, i - 1) : corners[i].place);
  const leaves = (i: number): Vec3 => (corners[i].half > 0 ? towards(i, i + 1) : corners[i].place);
  const straight = (from: Vec3, to: Vec3, source: PathPoint, next: PathPoint) => {
    // With no straight between two arcs they meet in one point.
    if (vec3.distance(from, to) < 1e-9) return;
    put(vec3.lerp([0, 0, 0], from, to, 0.5) as Vec3, 1, source);
    put(to, 1, next);
  };
  const arc = (i: number) => {
    const { half, place, source } = corners[i];
    if (half === 0) return;
    put(place, Math.cos(half), source);
    put(leaves(i), 1, source);
  };
  put(closed ? leaves(0) : corners[0].place, 1, corners[0].source);
  for (let i = 1; i < n; i++) {
    straight(leaves(i - 1), enters(i), corners[i - 1].source, corners[i].source);
    arc(i);
  }
  if (closed) {
    straight(leaves(n - 1), enters(0), corners[n - 1].source, corners[0].source);
    arc(0);
  }
  const pieces = (points.length - 1) / 2;
  const inner = Array.from({ length: pieces - 1 }, (_, i) => [i + 1, i + 1]).flat();
  return { basis: 'nurbs', degree: 2, knots: [0, 0, 0, ...inner, pieces, pieces, pieces], points };
}
