import { cameraAt, cutsWithCues, type Cut, type Rider } from '@fleet-rail/core';
import type { DeskState } from '../../state/desk-store';

type Shown = Pick<DeskState, 'shot' | 'evaluation'>;

let kept: { readonly of: Shown; readonly cuts: readonly Cut[] } | null = null;

/** The cuts of the shot with those that its cues make, as far as these are evaluated. */
export function shownCuts({ shot, evaluation }: Shown): readonly Cut[] {
  if (kept?.of.shot !== shot || kept.of.evaluation !== evaluation) {
    const cuts = cutsWithCues(shot, ({ id }) => evaluation?.moments.get(id) ?? null);
    kept = { of: { shot, evaluation }, cuts };
  }
  return kept.cuts;
}

/** Rider of the view through a camera: the chosen one, else the one of the cuts, else the first. */
export function lookedThrough({
  shot,
  evaluation,
  through,
  frame,
}: Shown & Pick<DeskState, 'through' | 'frame'>): Rider | null {
  const id = through ?? cameraAt(shownCuts({ shot, evaluation }), frame);
  const cameras = shot.riders.filter(({ camera }) => camera !== null);
  return cameras.find((rider) => rider.id === id) ?? cameras[0] ?? null;
}
