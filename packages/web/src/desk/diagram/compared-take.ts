import { evaluateShot, sampleRider, type EvaluatedShot, type Rider, type Shot } from '@fleet-rail/core';
import { withHitch } from '@fleet-rail/core';
import type { DeskState } from '../desk-store';

/** The selected rider as another take has it. */
export interface ComparedTake {
  readonly rider: Rider;
  readonly name: string;
  /** The shot with that take playing. */
  readonly evaluated: EvaluatedShot;
  /** The rider's place among its riders. */
  readonly index: number;
  /** By frame from the range's first: POSE.size numbers. */
  readonly poses: Float64Array;
}

let cached: { from: readonly unknown[]; take: ComparedTake | null } | null = null;

/** The take that is compared with; null where there is none. Kept while nothing it follows from changes. */
export function comparedTake({
  shot,
  riderId,
  take,
}: Pick<DeskState, 'shot' | 'riderId' | 'take'>): ComparedTake | null {
  const from = [shot, riderId, take];
  if (cached === null || !cached.from.every((part, i) => part === from[i])) {
    cached = { from, take: compare(shot, riderId, take) };
  }
  return cached.take;
}

function compare(shot: Shot, riderId: string | null, take: number | null): ComparedTake | null {
  const index = shot.riders.findIndex(({ id }) => id === riderId);
  const rider = shot.riders[index];
  const kept = take === null ? undefined : rider?.hitch?.takes[take];
  if (!rider || !kept) return null;
  const other = withHitch(shot, rider.id, (hitch) => ({ ...hitch, pace: kept.pace }));
  const evaluated = evaluateShot(other);
  const { first, last } = shot.range;
  const poses = sampleRider(evaluated.poses[index], first, last - first + 1, 1);
  return { rider, name: kept.name, evaluated, index, poses };
}
