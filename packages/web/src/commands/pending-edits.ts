import type { DeskStore } from '../state/desk-store';

/** Counts an edit as pending until its answer is in the document, so that the shot does not count as saved before. */
export function holdPending(desk: DeskStore, answered: Promise<unknown>): void {
  const { set } = desk.getState();
  const pending = answered.then(() => {
    const left = new Set(desk.getState().pendingEdits);
    left.delete(pending);
    set({ pendingEdits: left });
  });
  set({ pendingEdits: new Set([...desk.getState().pendingEdits, pending]) });
}

/** Resolves once the worker has answered all edits that it was asked for. */
export async function editsAnswered(desk: DeskStore): Promise<void> {
  while (desk.getState().pendingEdits.size > 0) await Promise.all(desk.getState().pendingEdits);
}
