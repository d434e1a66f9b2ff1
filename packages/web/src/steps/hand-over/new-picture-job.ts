import { fileNameOf, isSheet, plannedPictures, type PictureJob, type PictureWish } from '@fleet-rail/core';
import type { DeskState } from '../../state/desk-store';
import { shownCuts } from '../../viewport/views/looked-through';

/** Job for an order from the present desk; null while there is no stage. */
export function newPictureJob(
  state: DeskState,
  asked: PictureWish,
  theme: 'day' | 'night',
): (PictureJob & { readonly fileName: string }) | null {
  const { shot, frame, riderId, seen } = state;
  if (seen === null) return null;
  const wish = { ...asked, clear: asked.clear && asked.file === 'png' };
  const pictures = plannedPictures(wish, {
    frame,
    range: shot.range,
    cuts: shownCuts(state),
    cameras: shot.riders.filter(({ camera }) => camera !== null).map(({ id }) => id),
    view: seen,
  });
  const board = wish.burnIn.board || wish.helpers || isSheet(wish.file) ? riderId : null;
  return { shot, wish, pictures, theme, board, fileName: fileNameOf({ shot, wish, pictures }) };
}
