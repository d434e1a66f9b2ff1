import type { ComponentType } from 'react';
import { onceLoaded } from '../../ui/once-loaded';
import { loadCards } from '../../steps/path/load-cards';
import { startGraphics } from '../../viewport/drawing/smooth-edges';
import { STEPS, type StepId } from '../../state/steps';

type Panel = { shotId: string };

/** Panel of each step: the first one does not wait for the others. */
const PANELS = {
  path: onceLoaded<Panel>(() => import('../../steps/path/path-step').then((module) => module.PathStep)),
  attach: onceLoaded<Panel>(() =>
    import('../../steps/attach/attach-step').then((module) => module.AttachStep),
  ),
  facing: onceLoaded<Panel>(() =>
    import('../../steps/facing/facing-step').then((module) => module.FacingStep),
  ),
  contact: onceLoaded<Panel>(() =>
    import('../../steps/contact/contact-step').then((module) => module.ContactStep),
  ),
  pace: onceLoaded<Panel>(() => import('../../steps/pace/pace-step').then((module) => module.PaceStep)),
  check: onceLoaded<Panel>(() => import('../../steps/check/check-step').then((module) => module.CheckStep)),
  'hand-over': onceLoaded<Panel>(() =>
    import('../../steps/hand-over/hand-over-step').then((module) => module.HandOverStep),
  ),
} satisfies Record<StepId, unknown>;

/** Not waited for: panels and diagram are there before what draws the scene has come. */
export const Stage = onceLoaded((): Promise<ComponentType<{ station: StepId }>> => {
  void startGraphics();
  return import('../../viewport/stage/stage').then((module) => module.Stage);
});

/** Panel of a step in an address; the first step's for an unknown name. */
export const panelOf = (step: string | undefined) =>
  STEPS.some(({ id }) => id === step) ? PANELS[step as StepId] : PANELS.path;

/** Milliseconds after which the other panels are loaded as well, so that a step is there when it is gone to. */
const LATER = 3_000;

export function loadPanels(): () => void {
  const timer = setTimeout(() => {
    // One that fails is asked for again when it is shown.
    for (const { load } of [...Object.values(PANELS), { load: loadCards }]) load().catch(() => undefined);
  }, LATER);
  return () => clearTimeout(timer);
}
