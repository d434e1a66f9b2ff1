import { quat, vec3 } from 'gl-matrix';
import type { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Transform } from '../../document/transform.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { toLocal, toWorld } from '../path/placement.js';

/** A move in the world: turned and scaled about a pivot, then moved. */
export interface WorldMove {
  readonly pivot: Vec3;
  readonly translation: Vec3;
  readonly rotation: Quat;
  /** The same in all directions, so that no transform gets a skew. */
  readonly scale: number;
}

/** The whole path moved by its transform; its points keep their numbers. */
export function moveWholePath(path: ShotPath, move: WorldMove): ShotPath {
  const { translation, rotation, scale } = path.transform;
  const transform: Transform = {
    translation: movedPosition(move, translation),
    rotation: quat.multiply([0, 0, 0, 1], move.rotation, rotation) as Quat,
    scale: scale.map((value) => value * move.scale) as Vec3,
  };
  return { ...path, transform };
}

/** Some of the points moved, handles and all. */
export function moveSomePoints(path: ShotPath, chosen: ReadonlySet<number>, move: WorldMove): ShotPath {
  return mapPoints(path, (world, i) => (chosen.has(i) ? movedPosition(move, world) : world));
}

/** A place of the world after a move. */
export function movedPosition({ pivot, translation, rotation, scale }: WorldMove, world: Vec3): Vec3 {
  const out = vec3.subtract([0, 0, 0], world, pivot) as Vec3;
  vec3.transformQuat(out, vec3.scale(out, out, scale), rotation);
  vec3.add(out, out, pivot);
  return vec3.add(out, out, translation) as Vec3;
}

/** Path coordinates become world coordinates: the same curve, and a transform that does nothing. */
export function applyTransform(path: ShotPath): ShotPath {
  const transform: Transform = { translation: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] };
  const place = (local: Vec3) => toWorld(path.transform, local);
  return { ...path, transform, points: path.points.map((point) => withPlaces(point, place)) };
}

/** The same path with every place of its points, handle ends too, taken to another place in the world. */
export function mapPoints(path: ShotPath, change: (world: Vec3, i: number) => Vec3): ShotPath {
  const { transform } = path;
  const points = path.points.map((point, i) =>
    withPlaces(point, (local) => toLocal(transform, change(toWorld(transform, local), i))),
  );
  return { ...path, points };
}

function withPlaces(point: PathPoint, place: (local: Vec3) => Vec3): PathPoint {
  const position = place(point.position);
  const handle = (end: Vec3): Vec3 =>
    vec3.subtract([0, 0, 0], place(vec3.add([0, 0, 0], point.position, end) as Vec3), position) as Vec3;
  return { ...point, position, in: handle(point.in), out: handle(point.out) };
}

/** The middle of the box around a path's points, in the world. */
export function middleOf(path: ShotPath, chosen?: ReadonlySet<number>): Vec3 {
  const low: Vec3 = [Infinity, Infinity, Infinity];
  const high: Vec3 = [-Infinity, -Infinity, -Infinity];
  path.points.forEach((point, i) => {
    if (chosen && chosen.size > 0 && !chosen.has(i)) return;
    const world = toWorld(path.transform, point.position);
    vec3.min(low, low, world);
    vec3.max(high, high, world);
  });
  return path.points.length === 0 ? [0, 0, 0] : (vec3.lerp([0, 0, 0], low, high, 0.5) as Vec3);
}
