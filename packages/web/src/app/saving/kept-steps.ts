import type { Shot } from '@fleet-rail/core';
import { delMany, getMany, keys, set } from 'idb-keyval';
import type { DeskStore } from '../../state/desk-store';
import { completeAll } from './drafts';
import { livingTabs, tabId } from './tab-id';

/** A step as the history has it: what was done, and the document before it. */
interface Step {
  readonly label: string;
  readonly shot: Shot;
}

/** So many steps are kept for after a reload. */
const KEPT = 60;

const prefixOf = (shotId: string, tab: string) => `step ${shotId} ${tab} `;
const keyOf = (shotId: string, tab: string, at: number) =>
  `${prefixOf(shotId, tab)}${String(at).padStart(6, '0')}`;

/**
 * Keeps what can be undone in this browser, step by step, so that it outlives a reload of the tab.
 *
 * @returns stops it
 */
export function keepSteps(shotId: string, desk: DeskStore): () => void {
  let known = desk.getState().past;
  /** Writes go one after the other: a step may be taken back before it was written. */
  let last: Promise<unknown> = Promise.resolve();
  return desk.subscribe(({ past }) => {
    if (past === known) return;
    const before = known;
    known = past;
    last = last.then(() => write(shotId, before, past)).catch(() => undefined);
  });
}

async function write(shotId: string, before: readonly Step[], past: readonly Step[]): Promise<void> {
  const tab = await tabId();
  let same = 0;
  while (same < before.length && same < past.length && before[same] === past[same]) same++;
  const gone = before.map((_, i) => i).filter((i) => i >= same || i < past.length - KEPT);
  await delMany(gone.map((i) => keyOf(shotId, tab, i)));
  for (let i = Math.max(same, past.length - KEPT); i < past.length; i++)
    await set(keyOf(shotId, tab, i), { label: past[i].label, shot: past[i].shot });
}

/** Undo steps of this tab before it was reloaded; those of closed tabs are deleted. */
export async function stepsBefore(shotId: string): Promise<Step[]> {
  const own = await tabId();
  const living = await livingTabs();
  const all = (await keys<string>()).filter((key) => key.startsWith(`step ${shotId} `)).sort();
  const dead = all.filter((key) => !living.has(key.split(' ')[2]));
  const mine = all.filter((key) => key.startsWith(prefixOf(shotId, own)));
  const kept = (await getMany<Step>(mine)).filter((step) => step !== undefined);
  const shots = await completeAll(kept.map(({ shot }) => shot));
  const steps = kept.map(({ label }, i) => ({ label, shot: shots[i] }));
  // They are numbered from nought again, as the history counts them.
  await delMany([...dead, ...mine]);
  await Promise.all(steps.map((step, i) => set(keyOf(shotId, own, i), step)));
  return steps;
}
