import {
  POSE,
  evaluateShot,
  type EvaluatedShot,
  type GroundMesh,
  type Rider,
  type Shot,
} from '@fleet-rail/core';
import { poseAt } from '../../evaluation/pose-at';
import { onGround } from '../../scene-assets/ground-height';
import type { DeskState, Attaching } from '../desk-store';
import { attachedShot } from '../attach-previews';
import { comparedTake } from '../diagram/compared-take';
import { lookedThrough } from './looked-through';

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

/** More are not drawn: they would be one smear. */
const MOST_GHOSTS = 240;

const evaluations = new WeakMap<Shot, { ground: GroundMesh | null; evaluated: EvaluatedShot }>();

/** Poses of riders of a shot that is not on the desk, on the desk's ground, at one frame. */
function posesIn(
  shot: Shot,
  ground: GroundMesh | null,
  ids: readonly string[],
  frame: number,
): { rider: Rider; pose: Float64Array }[] {
  const before = evaluations.get(shot);
  const evaluated = before?.ground === ground ? before.evaluated : evaluateShot(shot, onGround(ground));
  evaluations.set(shot, { ground, evaluated });
  return ids.flatMap((id) => {
    const index = shot.riders.findIndex((rider) => rider.id === id);
    if (index < 0) return [];
    const pose = new Float64Array(POSE.size);
    evaluated.poses[index](frame, pose, 0);
    return [{ rider: shot.riders[index], pose }];
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
 * What is shown pale: riders that are being attached at their start, middle and end; riders that would be new at the shown frame; the
 * selected rider as another take has it; or it every so many frames.
 */
export function ghostsOf(state: DeskState): Ghost[] {
  const { attaching, shownBefore, shows, frame, ground } = state;
  const landed = attachedShot(state);
  if (attaching && landed)
    return keptWhile([attaching, landed, ground], () => ofAttaching(attaching, landed, ground));
  if (shownBefore) {
    const shown = shownBefore.riders.slice(0, MOST_GHOSTS);
    return posesIn(shownBefore.shot, ground, shown, frame).map((ghost) => ({ ...ghost, pointed: false }));
  }
  const compared = comparedTake(state);
  if (compared) {
    const pose = new Float64Array(POSE.size);
    compared.evaluated.poses[compared.index](frame, pose, 0);
    return [{ rider: compared.rider, pose, pointed: false, label: compared.name }];
  }
  // Through a camera its own ghosts would stand before it.
  const isEye = state.view === 'through' && lookedThrough(state)?.id === state.riderId;
  if (shows.ghosts === 0 || isEye) return [];
  const { shot, riderId, evaluation } = state;
  return keptWhile([shot, riderId, evaluation, shows.ghosts], () => alongTheWay(state, shows.ghosts));
}

function ofAttaching({ riders, plan }: Attaching, landed: Shot, ground: GroundMesh | null): Ghost[] {
  const [first, ...others] = riders;
  const keys = landed.riders.find(({ id }) => id === first)?.hitch?.pace.keys ?? [];
  const start = plan.startFrame;
  const end = Math.max(start, keys.at(-1)?.frame ?? start);
  const times: [string, number][] = [['Lands here', start]];
  if (end > start) times.push(['Midway', (start + end) / 2], ['End', end]);
  return [
    ...times.flatMap(([label, time]) =>
      posesIn(landed, ground, [first], time).map((at) => ({ ...at, label })),
    ),
    ...posesIn(landed, ground, others, start),
  ].map((ghost) => ({ ...ghost, pointed: true }));
}

function alongTheWay({ shot, riderId, evaluation }: DeskState, step: number): Ghost[] {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const evaluated = rider && evaluation?.riders.get(rider.id);
  if (!rider?.hitch || !evaluated || !evaluation) return [];
  const ghosts: Ghost[] = [];
  const { first, last } = shot.range;
  for (let frame = first; frame <= last && ghosts.length < MOST_GHOSTS; frame += step) {
    const pose = new Float64Array(POSE.size);
    poseAt(evaluation, evaluated, frame, pose);
    ghosts.push({ rider, pose, pointed: false });
  }
  return ghosts;
}
