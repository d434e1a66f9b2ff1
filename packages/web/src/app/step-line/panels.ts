import type { ComponentType } from 'react';
import { onceLoaded } from '../../ui/once-loaded';
import { loadCards } from '../../steps/path/load-cards';
import { startGraphics } from '../../viewport/drawing/smooth-edges';
import { STATIONS, type StationId } from '../../state/steps';

type Panel = { shotId: string };

/** By station its panel: what is opened first does not wait for the others. */
const PANELS = {
  path: onceLoaded<Panel>(() => import('../../steps/path/path-step').then((module) => module.PathStation)),
  attach: onceLoaded<Panel>(() =>
    import('../../steps/attach/attach-step').then((module) => module.AttachStation),
  ),
  facing: onceLoaded<Panel>(() =>
    import('../../steps/facing/facing-step').then((module) => module.FacingStation),
  ),
  contact: onceLoaded<Panel>(() =>
    import('../../steps/contact/contact-step').then((module) => module.ContactStation),
  ),
  pace: onceLoaded<Panel>(() => import('../../steps/pace/pace-step').then((module) => module.PaceStation)),
  check: onceLoaded<Panel>(() =>
    import('../../steps/check/check-step').then((module) => module.CheckStation),
  ),
  'hand-over': onceLoaded<Panel>(() =>
    import('../../steps/hand-over/hand-over-step').then((module) => module.HandOverStation),
  ),
} satisfies Record<StationId, unknown>;

/** Not waited for: panels and diagram are there before what draws the scene has come. */
export const Stage = onceLoaded((): Promise<ComponentType<{ station: StationId }>> => {
  void startGraphics();
  return import('../../viewport/stage/stage').then((module) => module.Stage);
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
