import type {
  PathFacts,
  Plant,
  RiderTiming,
  SampledGauge,
  SampledParts,
  Shot,
  ShotError,
  Spray,
} from '@fleet-rail/core';
import type { ShotDelta } from './shot-delta';

/** Result of an edit as it is sent: the shot as a delta to the one that was asked for, or why it cannot be done. */
export type SentAnswer =
  | { readonly delta: ShotDelta; readonly told: object }
  | { readonly refused: ConstructorParameters<typeof ShotError> };

/** Lines of one path for the stage. */
export interface EvaluatedPath {
  readonly id: string;
  /** Metres; 0 where there is no curve. */
  readonly length: number;
  readonly closed: boolean;
  /** Why there is no curve. */
  readonly problem: string | null;
  /** Facts of the path; null without a curve. */
  readonly facts: PathFacts | null;
  /** Along the path at even distances: position, left, up, forward; twelve numbers a place. */
  readonly frames: Float64Array;
}

/** One rider over the whole range. */
export interface EvaluatedRider {
  readonly id: string;
  /** POSE.size numbers a sample. */
  readonly poses: Float64Array;
  /** Its lateral acceleration by its own track, m/s² to the left, a sample as in poses. */
  readonly sideways: Float64Array;
  /** How far it is led away from what it keeps clear of: three numbers a sample, metres; empty where that is nothing. */
  readonly away: Float64Array;
  /** 1 a sample at which it is seen, 0 where a cue hides it; null for one that always is. */
  readonly shown: Uint8Array | null;
  /** Moved parts of its model. */
  readonly parts: SampledParts;
  /** Its gauges beside its pose. */
  readonly gauges: readonly SampledGauge[];
  /** Timing by its own pace, and the frames of the shot that show it; null if it is not attached. */
  readonly timing: RiderTiming | null;
  /** Its spray; null if there is none. */
  readonly spray: Spray | null;
  /** Frames of the shot in which its feet are planted. */
  readonly plants: readonly Plant[];
}

/** Poses at one frame, known before those at all others. */
export interface PosesNow {
  readonly frame: number;
  /** By rider id POSE.size numbers. */
  readonly poses: ReadonlyMap<string, Float64Array>;
}

/** A shot, evaluated: all the page draws from. */
export interface Evaluation {
  /** Samples are `step` frames apart, the first at the range's first frame. */
  readonly first: number;
  readonly frames: number;
  readonly step: number;
  readonly paths: ReadonlyMap<string, EvaluatedPath>;
  /** While not all of them are evaluated: as they are, as they were before the edit, or not yet. */
  readonly riders: ReadonlyMap<string, EvaluatedRider>;
  /** Of riders that are not yet evaluated over the range; null when all are. */
  readonly now: PosesNow | null;
  /** How much of what forces do is worked out, 0 to 1, while it is; null when all of it is. */
  readonly settling: number | null;
  /** By cue that is played and waits for its moment: the frame of the shot at which it acts; null where that does not come. */
  readonly moments: ReadonlyMap<string, number | null>;
}

/** Frame and rider on the screen, evaluated first. */
export interface Focus {
  readonly frame: number;
  readonly rider: string | null;
}

/** Share of a shot that a worker evaluates. */
export interface Share {
  /** Whether what belongs to no rider is among it: curves and cues. */
  readonly leads: boolean;
  /** Null for all of them. */
  readonly riders: readonly string[] | null;
}

/** Answer of the worker: results since the last one. */
export interface EvaluationUpdate {
  readonly first: number;
  readonly frames: number;
  readonly step: number;
  readonly paths: readonly EvaluatedPath[];
  readonly riders: readonly EvaluatedRider[];
  readonly now: PosesNow;
  readonly settling: number | null;
  /** End of an evaluation; null while it is under way. */
  readonly end: EvaluationEnd | null;
}

/** Results that need all of a share. */
export interface EvaluationEnd {
  readonly moments: ReadonlyMap<string, number | null>;
}

/**
 * An evaluation with an update put over it.
 *
 * @param shot whose paths and riders are kept
 */
export function withUpdate(
  before: Evaluation | null,
  update: EvaluationUpdate,
  shot: Pick<Shot, 'paths' | 'riders'>,
): Evaluation {
  const { first, frames, step, now, settling } = update;
  const known = before?.now?.frame === now.frame ? before.now.poses : [];
  const poses = new Map([...known, ...now.poses]);
  for (const { id } of update.riders) poses.delete(id);
  return {
    first,
    frames,
    step,
    moments: before?.moments ?? new Map(),
    paths: merged(before?.paths, shot.paths, update.paths),
    riders: merged(before?.riders, shot.riders, update.riders),
    now: { frame: now.frame, poses },
    settling,
  };
}

/** An evaluation with all shares at their end. */
export function withEnds(evaluation: Evaluation, ends: readonly EvaluationEnd[]): Evaluation {
  return {
    ...evaluation,
    now: null,
    settling: null,
    moments: new Map(ends.flatMap(({ moments }) => [...moments])),
  };
}

function merged<T extends { id: string }>(
  before: ReadonlyMap<string, T> | undefined,
  kept: readonly { readonly id: string }[],
  fresh: readonly T[],
): ReadonlyMap<string, T> {
  const same = fresh.length === 0 && before?.size === kept.length && kept.every(({ id }) => before.has(id));
  if (same) return before;
  const news = new Map(fresh.map((item) => [item.id, item]));
  return new Map(
    kept.flatMap(({ id }) => {
      const item = news.get(id) ?? before?.get(id);
      return item ? [[id, item] as const] : [];
    }),
  );
}

/** Some riders of a shot that is not the desk's: one that is shown before it is accepted, or compared with. */
export interface AsideEvaluation {
  readonly shot: Shot;
  /** As in {@link Evaluation}. */
  readonly first: number;
  readonly step: number;
  /** By rider id POSE.size numbers a sample. */
  readonly poses: ReadonlyMap<string, Float64Array>;
}
