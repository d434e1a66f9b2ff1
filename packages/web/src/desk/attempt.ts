import { sentenceOf } from '../api/request';
import type { Edit } from '../edits/edit';
import { notify } from '../ui/notices';
import type { DeskStore } from './desk-store';

/** Does an edit; where it cannot be done nothing changes and the reason is said. */
export function attempt(desk: DeskStore, label: string, edit: Edit, gesture?: string): boolean {
  try {
    desk.getState().edit(label, edit, gesture);
    return true;
  } catch (error) {
    notify('error', sentenceOf(error));
    return false;
  }
}
