import { insertPoint, type ShotPath } from '@fleet-rail/core';
import { sentenceOf } from '../api/request';
import { addMark, changePath } from '../edits/path-edits';
import { notify } from '../ui/notices';
import type { DeskStore } from '../state/desk-store';

/** Inserts a point on the curve, which stays the same, and selects it. */
export function insertAt(desk: DeskStore, path: ShotPath, s: number): void {
  const { edit, set } = desk.getState();
  try {
    const inserted = insertPoint(path, s);
    edit(
      'Insert point',
      changePath(path.id, () => inserted.path),
    );
    set({ points: new Set([inserted.index]) });
    if (inserted.path.basis !== path.basis) {
      const now = inserted.path.basis === 'nurbs' ? 'NURBS' : 'Bézier';
      notify('done', `"${path.name}" is now a ${now} path, so that its curve does not change.`);
    }
  } catch (error) {
    notify('error', sentenceOf(error));
  }
}

export function markAt(desk: DeskStore, path: ShotPath, s: number): void {
  try {
    desk.getState().edit('Add mark', addMark(path.id, Number(s.toFixed(3))));
  } catch (error) {
    notify('error', sentenceOf(error));
  }
}
