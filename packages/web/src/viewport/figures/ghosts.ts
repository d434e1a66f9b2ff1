import { POSE, type Rider, type Shot } from '@fleet-rail/core';
import { poseAt } from '../../workers/evaluation/pose-at';
import { comparedTake, MOST_GHOSTS } from '../../commands/aside';
import { attachedShot } from '../../commands/attach-previews';
import type { Attaching, DeskState } from '../../state/desk-store';
import { lookedThrough } from '../views/looked-through';

/** A pale figure of a rider: where it would be, or where it is at another time. */
export interface Ghost {
  readonly rider: Rider;
  /** POSE.size numbers. */
  readonly pose: Float64Array;
  /** With an arrow before its nose. */
  readonly pointed: boolean;
  /** Written beside it. */
  readonly label?: string;
}

/** Poses at one frame of riders that were evaluated aside, as far as they are. */
function asideAt(state: DeskState, shot: Shot, ids: readonly string[], frame: number): Ghost[] {
  const { aside } = state;
  return ids.flatMap((id) => {
    const rider = shot.riders.find((other) => other.id === id);
    const poses = aside?.poses.get(id);
    if (!rider || !aside || !poses) return [];
    const pose = new Float64Array(POSE.size);
    poseAt(aside, { poses }, frame, pose);
    return [{ rider, pose, pointed: false }];
  });
}

let cached: { from: readonly unknown[]; ghosts: Ghost[] } | null = null;

/** Ghosts that no other frame changes, kept while nothing they follow from does. */
function keptWhile(from: readonly unknown[], make: () => Ghost[]): Ghost[] {
  if (
    cached === null ||
    cached.from.length !== from.length ||
    !from.every((part, i) => part === cached?.from[i])
  )
    cached = { from, ghosts: make() };
  return cached.ghosts;
}

/**
 * Ghosts: riders that are being attached at their start, middle and end; new riders at the shown frame; the selected
 * rider in another take; or it at regular frames.
 */
export function ghostsOf(state: DeskState): Ghost[] {
  const { attaching, shownBefore, shows, frame, aside } = state;
  const attached = attachedShot(state);
  if (attaching && attached)
    return keptWhile([attaching, attached, aside], () => ofAttaching(state, attaching, attached));
  if (shownBefore) return asideAt(state, shownBefore.shot, shownBefore.riders, frame);
  const compared = comparedTake(state);
  if (compared) {
    const pose = new Float64Array(POSE.size);
    poseAt(compared, compared, frame, pose);
    return [{ rider: compared.rider, pose, pointed: false, label: compared.name }];
  }
  // Through its own camera its ghosts would be in front of it.
  const isEye = state.view === 'through' && lookedThrough(state)?.id === state.riderId;
  if (shows.ghosts === 0 || isEye) return [];
  const { shot, riderId, evaluation } = state;
  return keptWhile([shot, riderId, evaluation, shows.ghosts], () => alongTheWay(state, shows.ghosts));
}

function ofAttaching(state: DeskState, { riders, plan }: Attaching, attached: Shot): Ghost[] {
  const [first, ...others] = riders;
  const keys = attached.riders.find(({ id }) => id === first)?.attachment?.pace.keys ?? [];
  const start = plan.startFrame;
  const end = Math.max(start, keys.at(-1)?.frame ?? start);
  const times: [string, number][] = [['Lands here', start]];
  if (end > start) times.push(['Midway', (start + end) / 2], ['End', end]);
  return [
    ...times.flatMap(([label, time]) =>
      asideAt(state, attached, [first], time).map((ghost) => ({ ...ghost, label })),
    ),
    ...asideAt(state, attached, others, start),
  ].map((ghost) => ({ ...ghost, pointed: true }));
}

function alongTheWay({ shot, riderId, evaluation }: DeskState, step: number): Ghost[] {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const evaluated = rider && evaluation?.riders.get(rider.id);
  if (!rider?.attachment || !evaluated || !evaluation) return [];
  const ghosts: Ghost[] = [];
  const { first, last } = shot.range;
  for (let frame = first; frame <= last && ghosts.length < MOST_GHOSTS; frame += step) {
    const pose = new Float64Array(POSE.size);
    poseAt(evaluation, evaluated, frame, pose);
    ghosts.push({ rider, pose, pointed: false });
  }
  return ghosts;
}
