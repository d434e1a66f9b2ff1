import { quat } from 'gl-matrix';
import type { ShotPath } from '../document/shot-path.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import type { Quat } from '../math/vec.js';
import { compilePace } from '../pace/compile-pace.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { PathError } from '../path/path-error.js';
import { restPose } from '../rider/rest-pose.js';
import { ridePath, type PoseAt } from '../rider/ride-path.js';

/** A shot whose paths and riders answer questions at any frame. */
export interface EvaluatedShot {
  readonly shot: Shot;
  /** By path id: the curve, or why there is none. */
  readonly paths: ReadonlyMap<string, CompiledPath | PathError>;
  /** In the order of the document's riders. */
  readonly poses: readonly PoseAt[];
}

const compiledPaths = new WeakMap<ShotPath, CompiledPath | PathError>();

/** The curve of a path of the document, computed once for as long as that path is unchanged. */
export function compiledPathOf(path: ShotPath): CompiledPath | PathError {
  const known = compiledPaths.get(path);
  if (known !== undefined) return known;
  let result: CompiledPath | PathError;
  try {
    result = compilePath(path);
  } catch (error) {
    if (!(error instanceof PathError)) throw error;
    result = error;
  }
  compiledPaths.set(path, result);
  return result;
}

/** Compiles what the document describes; a path without a curve leaves its riders at rest. */
export function evaluateShot(shot: Shot): EvaluatedShot {
  const paths = new Map(shot.paths.map((path) => [path.id, compiledPathOf(path)]));
  const byId = new Map(shot.riders.map((rider) => [rider.id, rider]));
  const made = new Map<string, PoseAt>();
  const poseOf = (rider: Rider): PoseAt => {
    const known = made.get(rider.id);
    if (known !== undefined) return known;
    const pose = makePose(rider);
    made.set(rider.id, pose);
    return pose;
  };
  const makePose = (rider: Rider): PoseAt => {
    const path = rider.hitch && paths.get(rider.hitch.path);
    if (rider.hitch && path && !(path instanceof PathError)) {
      const pace = compilePace(rider.hitch.pace, shot.fps, path.length);
      const rest = quat.normalize([0, 0, 0, 1], rider.rest.rotation) as Quat;
      return ridePath(rider.hitch, path, pace, rest);
    }
    const parent = rider.parent === null ? undefined : byId.get(rider.parent);
    return restPose(rider.rest, parent ? poseOf(parent) : null);
  };
  return { shot, paths, poses: shot.riders.map(poseOf) };
}

/** Whether a rider's place can change over time: it rides, or its carrier does. */
export function isMoving(shot: Shot, rider: Rider): boolean {
  if (rider.hitch !== null) return true;
  const parent = shot.riders.find((other) => other.id === rider.parent);
  return parent !== undefined && isMoving(shot, parent);
}
