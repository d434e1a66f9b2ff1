import { ShotError } from '@fleet-rail/core';
import { sentenceOf } from '../api/request';
import type { Answered, AskedEdit, AskedWith } from '../workers/evaluation/asked-edits';
import type { Edit } from '../edits/edit';
import { notify } from '../ui/notices';
import type { DeskStore } from '../state/desk-store';
import { holdPending } from './pending-edits';
import { whereOf } from './where';

/** Why an edit is refused, with the place named as the animator knows it. */
function refusalOf(desk: DeskStore, error: unknown): string {
  if (!(error instanceof ShotError)) return sentenceOf(error);
  return `${whereOf(desk.getState().shot, error.path)}: found ${error.found}; expected ${error.expected}.`;
}

/** Runs an edit; if it fails nothing changes and the reason is shown. */
export function attempt(desk: DeskStore, label: string, edit: Edit, gesture?: string): boolean {
  try {
    desk.getState().edit(label, edit, gesture);
    return true;
  } catch (error) {
    notify('error', refusalOf(desk, error));
    return false;
  }
}

/**
 * Runs an edit in the worker. If the shot changes meanwhile, the edit runs again on the changed shot, so nothing is overwritten.
 *
 * @returns the result; null if the edit was refused: nothing has changed then, and a notice says why
 */
export function attemptAsked<Name extends AskedEdit>(
  desk: DeskStore,
  label: string,
  name: Name,
  ...rest: AskedWith<Name>
): Promise<Answered<Name> | null> {
  const answered = runAsked(desk, label, name, ...rest);
  holdPending(desk, answered);
  return answered;
}

async function runAsked<Name extends AskedEdit>(
  desk: DeskStore,
  label: string,
  name: Name,
  ...rest: AskedWith<Name>
): Promise<Answered<Name> | null> {
  try {
    for (;;) {
      const { shot, editAsker } = desk.getState();
      if (editAsker === null) return null;
      const answer = await editAsker.edited(shot, name, ...rest);
      if (desk.getState().shot !== shot) continue;
      desk.getState().edit(label, () => answer.shot);
      return answer;
    }
  } catch (error) {
    notify('error', refusalOf(desk, error));
    return null;
  }
}
