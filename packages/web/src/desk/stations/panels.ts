import type { ComponentType } from 'react';
import { onceLoaded } from '../../ui/once-loaded';
import { loadCards } from '../path/load-cards';
import { startGraphics } from '../stage/smooth-edges';
import { STATIONS, type StationId } from './stations';

type Panel = { shotId: string };

/** By station its panel: what is opened first does not wait for the others. */
const PANELS = {
  path: onceLoaded<Panel>(() => import('../path/path-station').then((module) => module.PathStation)),
  attach: onceLoaded<Panel>(() => import('../attach/attach-station').then((module) => module.AttachStation)),
  facing: onceLoaded<Panel>(() => import('../facing/facing-station').then((module) => module.FacingStation)),
  contact: onceLoaded<Panel>(() =>
    import('../contact/contact-station').then((module) => module.ContactStation),
  ),
  pace: onceLoaded<Panel>(() => import('../pace/pace-station').then((module) => module.PaceStation)),
  check: onceLoaded<Panel>(() => import('../check/check-station').then((module) => module.CheckStation)),
  'hand-over': onceLoaded<Panel>(() =>
    import('../hand-over/hand-over-station').then((module) => module.HandOverStation),
  ),
} satisfies Record<StationId, unknown>;

/** Not waited for: panels and diagram are there before what draws the scene has come. */
export const Stage = onceLoaded((): Promise<ComponentType<{ station: StationId }>> => {
  void startGraphics();
  return import('../stage/stage').then((module) => module.Stage);
});

/** The panel of a station in an address; that of the first where there is none of that name. */
export const panelOf = (station: string | undefined) =>
  STATIONS.some(({ id }) => id === station) ? PANELS[station as StationId] : PANELS.path;

/** Milliseconds after which the other panels are loaded as well, so that a step is there when it is gone to. */
const LATER = 3_000;

export function loadPanels(): () => void {
  const timer = setTimeout(() => {
    // One that fails is asked for again when it is shown.
    for (const { load } of [...Object.values(PANELS), { load: loadCards }]) load().catch(() => undefined);
  }, LATER);
  return () => clearTimeout(timer);
}
