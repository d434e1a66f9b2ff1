import {
  PathError,
  compiledPathOf,
  deviation,
  ribbonFrames,
  roughnessOf,
  LIMITS,
  toWorld,
  type GroundHeight,
  type Rider,
  type Shot,
  type ShotPath,
  type Vec3,
} from '@fleet-rail/core';
import { bridgedPaths, tightestBend } from './bridge';
import { applyOperation } from './apply-operation';
import type { Operation } from './operation';

/** The part of a shot that an operation reads and changes. */
export type OperationScope = Pick<Shot, 'paths' | 'riders'>;

/** Preview of an operation. */
export interface Preview {
  readonly paths: readonly ShotPath[];
  readonly riders: readonly Rider[];
  /** Points of the paths before and after. */
  readonly pointsBefore: number;
  readonly pointsAfter: number;
  /** Metres of all paths it gives together. */
  readonly length: number;
  /** The farthest the path and its result are apart, metres; null where that is not the question. */
  readonly deviation: number | null;
  /** How rough the path is and its result would be, degrees that the worst short bend turns; null where it is not rough to begin with. */
  readonly roughness: readonly [number, number] | null;
  /** The radius of the tightest bend of a bridge it makes, metres; null where it makes none, or one that is straight. */
  readonly bridge: number | null;
  /** Centre lines of the resulting paths, x, y, z a place. */
  readonly lines: readonly Float32Array[];
  /** Positions of their points. */
  readonly positions: readonly Vec3[];
}

/** Operations whose result is meant to stay near the path; the others move it on purpose. */
const NEAR = new Set<Operation['kind']>(['smooth', 'thin', 'resample', 'basis']);

/**
 * Result of an operation, with its figures.
 *
 * @throws PathError where it has no result
 */
export function previewOperation(shot: Shot, operation: Operation, ground: GroundHeight): Preview {
  const after = applyOperation(shot, operation, ground);
  const before = new Set(shot.paths);
  const changed = after.paths.filter((path) => !before.has(path));
  if (after.paths.length > LIMITS.paths) {
    throw new PathError(`That would make ${after.paths.length} paths; a shot holds at most ${LIMITS.paths}.`);
  }
  const curves = changed.map((path) => {
    if (path.points.length > LIMITS.pointsPerPath) {
      throw new PathError(
        `That would need ${path.points.length} points; a path holds at most ${LIMITS.pointsPerPath}. Expected a larger tolerance.`,
      );
    }
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) throw curve;
    return curve;
  });
  const original = shot.paths.find((path) => path.id === operation.path);
  const from = original && compiledPathOf(original);
  const rough = from && !(from instanceof PathError) ? roughnessOf(from) : null;
  const near = NEAR.has(operation.kind) && curves.length === 1 && from && !(from instanceof PathError);
  return {
    paths: after.paths,
    riders: after.riders,
    pointsBefore: original?.points.length ?? 0,
    pointsAfter: changed.reduce((sum, path) => sum + path.points.length, 0),
    length: curves.reduce((sum, curve) => sum + curve.length, 0),
    deviation: near ? deviation(from, curves[0]) : null,
    roughness: near && rough ? [rough.angleDeg, roughnessOf(curves[0])?.angleDeg ?? 0] : null,
    bridge: bridgeOf(shot, operation),
    lines: curves.map((curve) => centreLine(ribbonFrames(curve))),
    positions: changed.flatMap((path) => path.points.map((point) => toWorld(path.transform, point.position))),
  };
}

function bridgeOf(shot: Shot, operation: Operation): number | null {
  const path = shot.paths.find(({ id }) => id === operation.path);
  if (path === undefined) return null;
  if (operation.kind === 'close' && operation.bridge)
    return tightestBend({ first: path, second: path }, operation.tension);
  const other = operation.kind === 'join' && shot.paths.find(({ id }) => id === operation.other);
  if (operation.kind !== 'join' || !other) return null;
  return tightestBend(bridgedPaths(path, other, operation.ends), operation.tension);
}

function centreLine(frames: Float64Array): Float32Array {
  const line = new Float32Array(frames.length / 4);
  for (let i = 0; 12 * i < frames.length; i++) line.set(frames.subarray(12 * i, 12 * i + 3), 3 * i);
  return line;
}

/** The part of a shot an operation is about: its paths, all names and ids, and what rides them. */
export function scopeOf(shot: Shot, operation: Operation): Shot {
  const ids = new Set([operation.path, ...(operation.kind === 'join' ? [operation.other] : [])]);
  return {
    ...shot,
    // The others are there by name only, so that what is made does not take a name that is taken.
    paths: shot.paths.map((path) => (ids.has(path.id) ? path : { ...path, points: [], marks: [] })),
    riders: shot.riders.filter((rider) => rider.attachment !== null && ids.has(rider.attachment.path)),
  };
}

/** A shot with what an operation gave for its part of it. */
export function withPreview(shot: Shot, operation: Operation, preview: Preview): Shot {
  const scope = scopeOf(shot, operation);
  const ids = new Set([operation.path, ...(operation.kind === 'join' ? [operation.other] : [])]);
  const untouched = new Map(shot.paths.filter(({ id }) => !ids.has(id)).map((path) => [path.id, path]));
  const riders = new Map(preview.riders.map((rider) => [rider.id, rider]));
  return {
    ...shot,
    paths: preview.paths.map((path) => untouched.get(path.id) ?? path),
    riders: shot.riders.map((rider) =>
      scope.riders.includes(rider) ? (riders.get(rider.id) ?? rider) : rider,
    ),
  };
}
