import { ShotError } from '@fleet-rail/core';
import { sentenceOf } from '../api/request';
import type { Edit } from '../edits/edit';
import { notify } from '../ui/notices';
import type { DeskStore } from './desk-store';
import { whereOf } from './where';

/** Why an edit is refused, with the place named as the animator knows it. */
function refusalOf(desk: DeskStore, error: unknown): string {
  if (!(error instanceof ShotError)) return sentenceOf(error);
  return `${whereOf(desk.getState().shot, error.path)}: found ${error.found}; expected ${error.expected}.`;
}

/** Does an edit; where it cannot be done nothing changes and the reason is said. */
export function attempt(desk: DeskStore, label: string, edit: Edit, gesture?: string): boolean {
  try {
    desk.getState().edit(label, edit, gesture);
    return true;
  } catch (error) {
    notify('error', refusalOf(desk, error));
    return false;
  }
}
