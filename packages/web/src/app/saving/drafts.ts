import type { Shot } from '@fleet-rail/core';
import { del, entries, set } from 'idb-keyval';
import { livingTabs, tabId } from './tab-id';

/** Edits that the server does not have yet, kept in this browser. */
export interface Draft {
  readonly shotId: string;
  readonly tab: string;
  /** The revision the edits were made on. */
  readonly revision: number;
  readonly shot: Shot;
  /** The save that was on its way, whose answer did not come. */
  readonly save?: string | null;
  readonly at: string;
}

const keyOf = (shotId: string, tab: string) => `draft ${shotId} ${tab}`;

/** Keeps what is on this tab's desk until the server has it. */
export async function keepDraft(
  shotId: string,
  revision: number,
  shot: Shot,
  save: string | null,
): Promise<void> {
  const tab = await tabId();
  const draft: Draft = { shotId, tab, revision, shot, save, at: new Date().toISOString() };
  await set(keyOf(shotId, tab), draft);
}

export async function dropDraft(shotId: string, tab?: string): Promise<void> {
  await del(keyOf(shotId, tab ?? (await tabId())));
}

/** This tab's own draft of a shot, and those that closed tabs left behind. */
export async function findDrafts(shotId: string): Promise<{ own: Draft | null; left: Draft[] }> {
  const own = await tabId();
  const living = await livingTabs();
  const kept = (await entries<string, Draft>())
    .filter(([key]) => key.startsWith(`draft ${shotId} `))
    .map(([, draft]) => draft);
  const shots = await completeAll(kept.map(({ shot }) => shot));
  const drafts = kept.map((draft, i) => ({ ...draft, shot: shots[i] }));
  return {
    own: drafts.find((draft) => draft.tab === own) ?? null,
    left: drafts.filter((draft) => draft.tab !== own && !living.has(draft.tab)),
  };
}

/** Shots that were kept in this browser, each {@link completed}. What checks a document is loaded where there is one. */
export async function completeAll(shots: readonly Shot[]): Promise<Shot[]> {
  if (shots.length === 0) return [];
  const { completed } = await import('./completed');
  return shots.map(completed);
}
