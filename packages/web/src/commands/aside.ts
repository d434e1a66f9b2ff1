import { withAttachment, type Rider, type Shot } from '@fleet-rail/core';
import { attachedShot } from './attach-previews';
import type { DeskState } from '../state/desk-store';

/** More ghosts are not drawn: they would be one smear. */
export const MOST_GHOSTS = 240;

/** A shot that is shown beside the desk's own, and which of its riders. */
export interface WantedAside {
  readonly shot: Shot;
  readonly riders: readonly string[];
}

let cached: { from: readonly unknown[]; wanted: WantedAside | null } | null = null;

/**
 * Shot to evaluate beside the desk's: riders where they are being attached, new riders, or the selected one in
 * another take. The same object until its inputs change.
 */
export function wantedAside(state: DeskState): WantedAside | null {
  const { attaching, shownBefore, shot, riderId, take } = state;
  const attached = attachedShot(state);
  const from = [attaching, attached, shownBefore, shot, riderId, take];
  if (cached === null || !cached.from.every((part, i) => part === from[i]))
    cached = { from, wanted: find(state, attached) };
  return cached.wanted;
}

function find(state: DeskState, attached: Shot | null): WantedAside | null {
  const { attaching, shownBefore } = state;
  if (attaching && attached) return { shot: attached, riders: attaching.riders };
  if (shownBefore) return { ...shownBefore, riders: shownBefore.riders.slice(0, MOST_GHOSTS) };
  return shotOfTake(state);
}

/** The shot with the selected rider's compared take playing. */
function shotOfTake({
  shot,
  riderId,
  take,
}: Pick<DeskState, 'shot' | 'riderId' | 'take'>): WantedAside | null {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const kept = take === null ? undefined : rider?.attachment?.takes[take];
  if (!rider || !kept) return null;
  return {
    shot: withAttachment(shot, rider.id, (attachment) => ({ ...attachment, pace: kept.pace })),
    riders: [rider.id],
  };
}

/** The selected rider as another take has it. */
export interface ComparedTake {
  readonly rider: Rider;
  readonly name: string;
  /** Frame of the first sample, and frames from one to the next. */
  readonly first: number;
  readonly step: number;
  /** POSE.size numbers a sample. */
  readonly poses: Float64Array;
}

/** The compared take once it is evaluated; null if there is none. */
export function comparedTake({
  shot,
  riderId,
  take,
  aside,
}: Pick<DeskState, 'shot' | 'riderId' | 'take' | 'aside'>): ComparedTake | null {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const kept = take === null ? undefined : rider?.attachment?.takes[take];
  const poses = rider && aside?.poses.get(rider.id);
  if (!rider || !kept || !aside || !poses) return null;
  return { rider, name: kept.name, first: aside.first, step: aside.step, poses };
}
