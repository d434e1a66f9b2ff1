import { lazy, type ComponentType } from 'react';
import { loadCards } from '../path/load-cards';
import { startGraphics } from '../stage/smooth-edges';
import { STATIONS, type StationId } from './stations';

type Panel = ComponentType<{ shotId: string }>;

/** By station its panel: what is opened first does not wait for the others. */
const LOADS: Record<StationId, () => Promise<Panel>> = {
  path: () => import('../path/path-station').then((module) => module.PathStation),
  attach: () => import('../attach/attach-station').then((module) => module.AttachStation),
  facing: () => import('../facing/facing-station').then((module) => module.FacingStation),
  contact: () => import('../contact/contact-station').then((module) => module.ContactStation),
  pace: () => import('../pace/pace-station').then((module) => module.PaceStation),
  check: () => import('../check/check-station').then((module) => module.CheckStation),
  'hand-over': () => import('../hand-over/hand-over-station').then((module) => module.HandOverStation),
};

const panelOf = (id: StationId) => lazy(async () => ({ default: await LOADS[id]() }));

export const PANELS: Record<StationId, Panel> = {
  path: panelOf('path'),
  attach: panelOf('attach'),
  facing: panelOf('facing'),
  contact: panelOf('contact'),
  pace: panelOf('pace'),
  check: panelOf('check'),
  'hand-over': panelOf('hand-over'),
};

export function loadStage() {
  void startGraphics();
  return import('../stage/stage');
}

/** The panel of a station in an address; that of the first where there is none of that name. */
export const loadPanel = (station: string) =>
  (STATIONS.some(({ id }) => id === station) ? LOADS[station as StationId] : LOADS.path)();

/** Milliseconds after which the other panels are loaded as well, so that a step is there when it is gone to. */
const LATER = 3_000;

export function loadPanels(): () => void {
  const timer = setTimeout(() => {
    // One that fails is asked for again when it is shown.
    for (const load of [...Object.values(LOADS), loadCards]) load().catch(() => undefined);
  }, LATER);
  return () => clearTimeout(timer);
}
