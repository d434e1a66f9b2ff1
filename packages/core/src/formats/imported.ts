import { LIMITS } from '../document/limits.js';
import { defaultsOf } from '../document/defaults.js';
import { freeId } from '../document/free-name.js';
import type { PaceKey } from '../document/shot-pace.js';
import { PathPoint, ShotPath } from '../document/shot-path.js';
import { distance3, type Vec3 } from '../geometry/math/vec.js';
import { fitPositions } from '../geometry/reshape/fit-positions.js';
import { rideFromMotion } from '../geometry/reshape/ride-from-motion.js';
import { FormatError } from './format-error.js';

/** Contents of a file: paths, and motions along some of them. */
export interface Imported {
  readonly paths: ShotPath[];
  readonly rides: ImportedRide[];
  /** Notes for the animator: parts that were skipped or thinned. */
  readonly notes: string[];
  /** Metres for one unit of the file, where it says how large it is meant to be. */
  readonly metresPerUnit?: number | null;
  /** Number of paths, the first ones, that are most likely wanted; all if left out. */
  readonly likely?: number;
}

/** When to be where on an imported path. */
export interface ImportedRide {
  readonly name: string;
  readonly pathId: string;
  /** In metres along the path. */
  readonly keys: PaceKey[];
  /** Its lens; null if it is not a camera. */
  readonly lens: ImportedLens | null;
}

/** Millimetres, and width over height. */
export interface ImportedLens {
  readonly focal: number;
  readonly sensor: number;
  readonly aspect: number;
}

/** How files are read. */
export interface ImportOptions {
  /** Metres for one unit of the file. */
  readonly scale: number;
  readonly fps: number;
  /** The frame that the file's time 0 falls on. */
  readonly firstFrame: number;
  /** How far a thinned path or motion may be from what the file says, metres. */
  readonly tolerance: number;
}

export type Progress = (part: number) => void;

const PLAIN_POINT = defaultsOf(PathPoint);
const PLAIN_PATH = defaultsOf(ShotPath);

/** Frames of keys lie no further off. */
const MOST_FRAME = 1e9;

/** A file's name without folders and ending, to name what it holds by. */
export function baseName(file: string): string {
  return file.replace(/^.*[\\/]/, '').replace(/\.[^.]*$/, '') || 'path';
}

/**
 * A path through points in order, in the world. Repeated points are left out. More than a path can hold are fitted by
 * a Bézier path within the tolerance, and a note says so.
 *
 * @throws FormatError where fewer than two places stand apart, or one lies too far away
 */
export function pathOfPositions(
  file: string,
  name: string,
  places: readonly Vec3[],
  how: { readonly basis: 'through' | 'polyline'; readonly closed: boolean; readonly tolerance: number },
  into: Imported,
  onProgress?: Progress,
): ShotPath {
  const shown = name.slice(0, 60);
  refuseFar(file, shown, places);
  const distinct = places.filter((place, i) => i === 0 || distance3(place, places[i - 1]) > 0);
  if (how.closed && distinct.length > 1 && distance3(distinct[0], distinct[distinct.length - 1]) === 0)
    distinct.pop();
  if (distinct.length < 2) {
    const found =
      places.length < 2 ? `${places.length} of the 2 points it needs` : 'all its points in one place';
    throw new FormatError(file, `"${shown}" has ${found}; expected two points that stand apart.`);
  }
  const blank: ShotPath = {
    ...PLAIN_PATH,
    id: freeId(name, into.paths),
    name: name.slice(0, LIMITS.textLength),
  };
  if (distinct.length <= LIMITS.pointsPerPath) {
    const points = distinct.map((position): PathPoint => ({ ...PLAIN_POINT, position: [...position] }));
    return { ...blank, basis: how.basis, closed: how.closed, points };
  }
  const positions = Float64Array.from(distinct.flat());
  const fit = (tolerance: number) =>
    fitPositions(blank, positions, how.closed, tolerance, undefined, onProgress);
  const fitted = fit(how.tolerance);
  if (fitted.points.length > LIMITS.pointsPerPath) {
    // The message names a tolerance that would do; choosing one is up to the animator.
    let { tolerance } = how;
    do tolerance *= 8;
    while (tolerance < LIMITS.coordinate && fit(tolerance).points.length > LIMITS.pointsPerPath);
    throw new FormatError(
      file,
      `"${shown}" takes ${fitted.points.length} points within ${how.tolerance} m, and a path holds ${LIMITS.pointsPerPath}; expected a tolerance of ${Number(tolerance.toPrecision(2))} m or more.`,
    );
  }
  into.notes.push(
    `"${shown}": ${distinct.length} points became ${fitted.points.length}, within ${how.tolerance} m.`,
  );
  return fitted;
}

/** Refuses a frame that no document could hold. */
export function refuseLate(file: string, name: string, frames: readonly number[]): void {
  if (frames.every((frame) => Math.abs(frame) <= MOST_FRAME)) return;
  throw new FormatError(
    file,
    `"${name.slice(0, 60)}" has a frame beyond ±${MOST_FRAME}; expected nearer ones.`,
  );
}

/** Refuses a place that no document could hold. */
function refuseFar(file: string, name: string, places: readonly Vec3[]): void {
  if (places.every((place) => place.every((value) => Math.abs(value) <= LIMITS.coordinate))) return;
  throw new FormatError(
    file,
    `"${name}" has a place more than ${LIMITS.coordinate} m away; expected nearer ones.`,
  );
}

/**
 * A motion as a path with keys; a still one is noted and skipped.
 *
 * @throws FormatError where a place or a frame lies further off than a document can hold, or it takes too many points
 */
export function addMotion(
  file: string,
  name: string,
  frames: readonly number[],
  places: readonly Vec3[],
  options: ImportOptions,
  into: Imported,
  lens: ImportedLens | null = null,
): void {
  refuseFar(file, name.slice(0, 60), places);
  refuseLate(file, name, frames);
  if (!places.some((place) => place.some((value, k) => Math.abs(value - places[0][k]) > 1e-4))) {
    into.notes.push(`"${name.slice(0, 60)}" stands still and was left out.`);
    return;
  }
  const { path, keys } = rideFromMotion(
    name,
    frames,
    Float64Array.from(places.flat()),
    options.tolerance,
    'straight',
  );
  if (path.points.length > LIMITS.pointsPerPath || keys.length > LIMITS.keysPerPace)
    throw new FormatError(
      file,
      `"${name.slice(0, 60)}" takes ${path.points.length} points and ${keys.length} keys within ${options.tolerance} m; a path holds ${LIMITS.pointsPerPath} and ${LIMITS.keysPerPace}. Expected a larger tolerance.`,
    );
  const own = { ...path, name: name.slice(0, LIMITS.textLength), id: freeId(name, into.paths) };
  into.paths.push(own);
  into.rides.push({ name, pathId: own.id, keys, lens });
}
