import {
  LIMITS,
  PathError,
  PathPoint,
  ShotError,
  ShotPath,
  compiledPathOf,
  defaultsOf,
  freeId,
  movePoints,
  reversePath,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';

/** A change to a shot: the document before to the document after. */
export type Edit = (shot: Shot) => Shot;

/** Puts another path in the place of the one with this id. */
export function changePath(id: string, change: (path: ShotPath) => ShotPath): Edit {
  return (shot) => ({ ...shot, paths: shot.paths.map((path) => (path.id === id ? change(path) : path)) });
}

/**
 * The shot with paths added, each under an id of its own.
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

/** A Bézier path through clicked places, its handles set from their neighbours. */
export function drawnPath(name: string, places: readonly Vec3[], closed: boolean): ShotPath {
  const plain = defaultsOf(ShotPath);
  const point = defaultsOf(PathPoint);
  return {
    ...plain,
    id: freeId(name, []),
    name,
    closed,
    points: places.map((position) => ({ ...point, position, handles: 'auto' })),
  };
}

/** A name no path has yet: "Path", "Path 2", … */
export function freePathName(shot: Shot): string {
  const taken = new Set(shot.paths.map((path) => path.name));
  if (!taken.has('Path')) return 'Path';
  for (let n = 2; ; n++) if (!taken.has(`Path ${n}`)) return `Path ${n}`;
}

export const movePathPoints = (id: string, chosen: ReadonlySet<number>, step: Vec3): Edit =>
  changePath(id, (path) => movePoints(path, chosen, step));

/** Puts one point somewhere, in the path's own space. */
export const placePathPoint = (id: string, index: number, position: Vec3): Edit =>
  changePath(id, (path) => ({
    ...path,
    points: path.points.map((point, i) => (i === index ? { ...point, position } : point)),
  }));

export const renamePath = (id: string, name: string): Edit => changePath(id, (path) => ({ ...path, name }));

/** The same curve the other way; what rides it is where it was at the start, and goes the other way. */
export const turnPathRound = (id: string): Edit =>
  changePath(id, (path) => {
    const curve = compiledPathOf(path);
    return curve instanceof PathError ? path : reversePath(path, curve.length);
  });

/** Takes a path away; what rode it goes back to where it rested. */
export const deletePath =
  (id: string): Edit =>
  (shot) => ({
    ...shot,
    paths: shot.paths.filter((path) => path.id !== id),
    riders: shot.riders.map((rider) => (rider.hitch?.path === id ? { ...rider, hitch: null } : rider)),
  });
