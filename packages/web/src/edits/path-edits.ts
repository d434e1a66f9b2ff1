import {
  LIMITS,
  ShotError,
  deletePoints,
  detachBack,
  detachHere,
  withoutDressingOn,
  withoutTurnouts,
  freeId,
  freeName,
  mapPoints,
  type Mark,
  type PathPoint,
  reshapeRiddenPath,
  softWeights,
  type SceneAssets,
  type Shot,
  type ShotPath,
  type Vec3,
} from '@fleet-rail/core';
import type { Edit } from './edit';

/** Puts another path in the place of the one with this id. */
export function changePath(id: string, change: (path: ShotPath) => ShotPath): Edit {
  return (shot) => ({ ...shot, paths: shot.paths.map((path) => (path.id === id ? change(path) : path)) });
}

/**
 * The shot with paths added, each with its own id.
 *
 * @throws ShotError where that would be more paths than a shot holds
 */
export function addPaths(shot: Shot, paths: readonly ShotPath[]): { shot: Shot; ids: string[] } {
  const count = shot.paths.length + paths.length;
  if (count > LIMITS.paths) throw new ShotError('paths', `${count} of them`, `at most ${LIMITS.paths}`);
  const all = [...shot.paths];
  const ids: string[] = [];
  for (const path of paths) {
    const id = freeId(path.id, all);
    all.push({ ...path, id });
    ids.push(id);
  }
  return { shot: { ...shot, paths: all }, ids };
}

/**
 * Gives a path another shape and keeps what is at a distance along it in its place. All values of one gesture are carried over from
 * the document in which it began, so that a drag back restores every distance. A path that the gesture itself added is not in that
 * document and is reshaped where it is.
 */
export const reshapePath =
  (id: string, change: (path: ShotPath) => ShotPath): Edit =>
  (shot, begun = shot) => {
    const path = shot.paths.find((other) => other.id === id);
    if (path === undefined) return shot;
    const hadPath = begun.paths.some((other) => other.id === id);
    return reshapeRiddenPath(hadPath ? begun : shot, change(path));
  };

/** A name no path has yet: "Path", "Path 2", … */
export function freePathName(shot: Shot, base = 'Path'): string {
  return freeName(base, shot.paths);
}

/** Puts one point somewhere, in the path's own space. */
export const placePathPoint = (id: string, index: number, position: Vec3): Edit =>
  changePoints(id, new Set([index]), (point) => ({ ...point, position }));

export const renamePath = (id: string, name: string): Edit => changePath(id, (path) => ({ ...path, name }));

/** Changes some points of a path, each on its own. */
export const changePoints = (
  id: string,
  chosen: ReadonlySet<number>,
  change: (point: PathPoint) => PathPoint,
): Edit =>
  reshapePath(id, (path) => ({
    ...path,
    points: path.points.map((point, i) => (chosen.has(i) ? change(point) : point)),
  }));

/** Moves some points of a path by a step in the world, their handles along: see {@link movedPoints}. */
export const movePathPoints = (id: string, chosen: ReadonlySet<number>, step: Vec3, radius: number): Edit =>
  reshapePath(id, (path) => movedPoints(path, chosen, step, radius));

/**
 * A path with some points moved by a step in the world; their places are written to a nanometre.
 *
 * @param radius within which the points beside them are taken along, less the further they are: metres along the path, 0 for none
 */
export function movedPoints(
  path: ShotPath,
  chosen: ReadonlySet<number>,
  step: Vec3,
  radius: number,
): ShotPath {
  const weights = softWeights(path, chosen, radius);
  const moved = mapPoints(path, (world, i) => world.map((value, k) => value + weights[i] * step[k]) as Vec3);
  return {
    ...moved,
    points: moved.points.map((point, i) => {
      if (weights[i] === 0) return path.points[i];
      const position = point.position.map((value) => Number(value.toFixed(9))) as Vec3;
      return { ...path.points[i], position };
    }),
  };
}

/** Deletes points of a path; the curve is kept as near as can be. */
export const deletePathPoints = (id: string, chosen: ReadonlySet<number>): Edit =>
  reshapePath(id, (path) => deletePoints(path, chosen));

/** Puts a point before or after its neighbour in the order of the path. */
export const reorderPoint = (id: string, index: number, by: 1 | -1): Edit =>
  reshapePath(id, (path) => {
    const to = index + by;
    if (to < 0 || to >= path.points.length) return path;
    const points = [...path.points];
    [points[index], points[to]] = [points[to], points[index]];
    return { ...path, points };
  });

/** A named place at a distance along a path. */
export const addMark = (id: string, distance: number): Edit =>
  changePath(id, (path) => {
    if (path.marks.length >= LIMITS.marksPerPath) {
      throw new ShotError('marks', `${path.marks.length} already`, `at most ${LIMITS.marksPerPath}`);
    }
    const name = `Mark ${path.marks.length + 1}`;
    return { ...path, marks: [...path.marks, { id: freeId(name, path.marks), name, distance }] };
  });

export const changeMark = (id: string, markId: string, change: Partial<Omit<Mark, 'id'>>): Edit =>
  changePath(id, (path) => ({
    ...path,
    marks: path.marks.map((mark) => (mark.id === markId ? { ...mark, ...change } : mark)),
  }));

export const deleteMark = (id: string, markId: string): Edit =>
  changePath(id, (path) => ({ ...path, marks: path.marks.filter((mark) => mark.id !== markId) }));

/** Fate of the riders of a deleted path. */
export type RidersFate = 'back' | 'stay';

/** Takes a path away; what rode it goes back to where it rested, or stays where it is at a frame. */
export function deletePath(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  fate: RidersFate,
  frame: number,
): Shot {
  const carried = shot.riders.flatMap((rider) => (rider.attachment?.path === id ? [rider.id] : []));
  const free = fate === 'stay' ? detachHere(shot, assets, carried, frame) : detachBack(shot, assets, carried);
  const bare = withoutDressingOn(free, id);
  return withoutTurnouts({ ...bare, paths: free.paths.filter((path) => path.id !== id) }, id);
}
