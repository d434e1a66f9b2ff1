import type { Shot } from '@fleet-rail/core';
import type { Edit } from '../edits/edit';

interface Step {
  readonly label: string;
  readonly shot: Shot;
}

/** The document, and those before and after it. */
export interface History {
  readonly shot: Shot;
  /** Documents before the present one, oldest first, each with what was done to it. */
  readonly past: readonly Step[];
  /** Documents that undo left behind, the next one first. */
  readonly future: readonly Step[];
  /** The drag that the newest step belongs to; its later values replace that step. */
  readonly gesture: string | null;
}

const STEPS_KEPT = 500;

export const newHistory = (shot: Shot): History => ({ shot, past: [], future: [], gesture: null });

/**
 * A history with an edit done; edits of one gesture are undone together, and one that says nothing new is no step.
 *
 * @returns null where nothing changes
 */
export function edited(history: History, label: string, edit: Edit, gesture?: string): History | null {
  const { shot: before, past } = history;
  const begun = gesture !== undefined && gesture === history.gesture ? past.at(-1) : undefined;
  const after = edit(before, begun?.shot ?? before);
  if (isSame(after, before)) return null;
  // A gesture that has come back to where it began has done nothing.
  if (begun && isSame(after, begun.shot))
    return { shot: begun.shot, past: past.slice(0, -1), future: [], gesture: null };
  return {
    shot: after,
    past: begun ? past : [...past.slice(-STEPS_KEPT), { label, shot: before }],
    future: [],
    gesture: gesture ?? null,
  };
}

/** A history one step back; null where there is none. */
export function undone({ shot, past, future }: History): History | null {
  const step = past.at(-1);
  if (step === undefined) return null;
  return {
    shot: step.shot,
    past: past.slice(0, -1),
    future: [{ label: step.label, shot }, ...future],
    gesture: null,
  };
}

/** A history one step on again; null where there is none. */
export function redone({ shot, past, future }: History): History | null {
  const [step, ...rest] = future;
  if (step === undefined) return null;
  return { shot: step.shot, past: [...past, { label: step.label, shot }], future: rest, gesture: null };
}

/** Whether two documents are equal; shared objects are not compared. */
function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => isSame(a[key as keyof typeof a], b[key as keyof typeof b]))
  );
}
