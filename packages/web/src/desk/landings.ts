import { attachRiders, compiledPathOf, PathError, type Landing, type Shot } from '@fleet-rail/core';
import { foundAxes } from '../edits/rider-edits';
import { notify } from '../ui/notices';
import { attempt } from './attempt';
import type { DeskState, DeskStore, RidersLanding } from './desk-store';

/** Shows riders where they would land on a path. */
export function beginLanding(desk: DeskStore, riders: readonly string[], pathId: string): void {
  const { shot, set } = desk.getState();
  const path = shot.paths.find(({ id }) => id === pathId);
  const curve = path && compiledPathOf(path);
  if (curve === undefined) return;
  if (curve instanceof PathError) {
    notify('error', curve.message);
    return;
  }
  const rides = riders.some((id) => shot.riders.find((rider) => rider.id === id)?.hitch);
  const plan: Landing = {
    path: pathId,
    start: 0,
    way: 'along',
    timing: { kind: rides ? 'kept' : 'once' },
    startFrame: shot.range.first,
    spacing: riders.length > 1 ? longest(shot, riders) : 0,
    keepsPlace: false,
  };
  set({ tool: { kind: 'select' }, landing: { riders, plan }, pathId, points: new Set() });
}

/** Room for the longest of some riders and a metre. */
function longest(shot: Shot, riders: readonly string[]): number {
  const lengths = shot.riders
    .filter(({ id }) => riders.includes(id))
    .map(({ chassis }) => (chassis ? chassis.frontCoupling - chassis.rearCoupling : 1));
  return Math.ceil(Math.max(...lengths) + 1);
}

export function changeLanding(desk: DeskStore, change: Partial<Landing>): void {
  const { landing, set } = desk.getState();
  if (landing) set({ landing: { ...landing, plan: { ...landing.plan, ...change } } });
}

export function acceptLanding(desk: DeskStore): void {
  const { landing, shot, models, set } = desk.getState();
  if (landing === null) return;
  const badges = shot.riders.filter(({ id }) => landing.riders.includes(id)).map(({ badge }) => badge);
  const axes = foundAxes(shot, models);
  const done = attempt(desk, `Attach ${badges.join(', ')}`, (before) =>
    attachRiders(before, landing.riders, landing.plan, axes),
  );
  if (done) set({ landing: null, pathId: landing.plan.path });
}

let known: { from: readonly unknown[]; shot: Shot | null } | null = null;

/** The shot as it would be with the landing accepted; null where it cannot be. Kept while nothing changes. */
export function landedShot({ shot, landing, models }: DeskState): Shot | null {
  if (landing === null) return null;
  const from = [shot, landing, models];
  if (known === null || !known.from.every((part, i) => part === from[i])) {
    known = { from, shot: landed(shot, landing, models) };
  }
  return known.shot;
}

function landed(shot: Shot, { riders, plan }: RidersLanding, models: DeskState['models']): Shot | null {
  try {
    return attachRiders(shot, riders, plan, foundAxes(shot, models));
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}
