import {
  attachRiders,
  compiledPathOf,
  hierarchyOfRider,
  PathError,
  riderLength,
  type AttachPlan,
  type Rider,
  type SceneAssets,
  type Shot,
} from '@fleet-rail/core';
import { foundAxes } from '../edits/rider-edits';
import { sceneAssets } from '../workers/scene-assets/ground-height';
import { notify } from '../ui/notices';
import { attempt } from './attempt';
import type { DeskState, DeskStore, Attaching } from '../state/desk-store';

/** Shows riders where they would land on a path. */
export function beginAttaching(desk: DeskStore, riders: readonly string[], pathId: string): void {
  const { shot, set } = desk.getState();
  const path = shot.paths.find(({ id }) => id === pathId);
  const curve = path && compiledPathOf(path);
  if (curve === undefined) return;
  if (curve instanceof PathError) {
    notify('error', curve.message);
    return;
  }
  const rides = riders.some((id) => shot.riders.find((rider) => rider.id === id)?.attachment);
  const plan: AttachPlan = {
    path: pathId,
    start: 0,
    way: 'along',
    timing: { kind: rides ? 'kept' : 'once' },
    startFrame: shot.range.first,
    spacing:
      riders.length > 1
        ? roomFor(
            sceneAssets(desk.getState()),
            shot.riders.filter(({ id }) => riders.includes(id)),
          )
        : 0,
    keepsPlace: false,
  };
  set({ tool: { kind: 'select' }, attaching: { riders, plan }, pathId, points: new Set() });
}

/** A distance to keep riders apart by, metres: the longest of them and a metre. */
export function roomFor(assets: SceneAssets, riders: readonly Rider[]): number {
  const lengths = riders.map((rider) => riderLength(rider, hierarchyOfRider(assets, rider)?.box ?? null));
  return Math.ceil(Math.max(1, ...lengths) + 1);
}

export function changeAttachPlan(desk: DeskStore, change: Partial<AttachPlan>): void {
  const { attaching, set } = desk.getState();
  if (attaching) set({ attaching: { ...attaching, plan: { ...attaching.plan, ...change } } });
}

export function acceptAttaching(desk: DeskStore): void {
  const { attaching, shot, models, set } = desk.getState();
  if (attaching === null) return;
  const badges = shot.riders.filter(({ id }) => attaching.riders.includes(id)).map(({ badge }) => badge);
  const axes = foundAxes(shot, models);
  const assets = sceneAssets(desk.getState());
  const done = attempt(desk, `Attach ${badges.join(', ')}`, (before) =>
    attachRiders(before, assets, attaching.riders, attaching.plan, axes),
  );
  if (done) set({ attaching: null, pathId: attaching.plan.path });
}

let cached: { from: readonly unknown[]; shot: Shot | null } | null = null;

/** The shot as it would be with the riders attached; null where it cannot be. Kept while nothing changes. */
export function attachedShot(state: DeskState): Shot | null {
  const { shot, attaching, models, ground, hierarchies } = state;
  if (attaching === null) return null;
  const from = [shot, attaching, models, ground, hierarchies];
  if (cached === null || !cached.from.every((part, i) => part === from[i])) {
    cached = { from, shot: attached(state, attaching) };
  }
  return cached.shot;
}

function attached(state: DeskState, { riders, plan }: Attaching): Shot | null {
  const { shot, models } = state;
  try {
    return attachRiders(shot, sceneAssets(state), riders, plan, foundAxes(shot, models));
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}
