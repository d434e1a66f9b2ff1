import type { Cue } from './shot-cue.js';

const kept = new WeakMap<Cue, readonly Cue[]>();

/** Cues with one action each: a cue with several is split. */
export function eachAction(cues: readonly Cue[]): readonly Cue[] {
  if (cues.every(({ moreActions }) => moreActions.length === 0)) return cues;
  return cues.flatMap((cue) => {
    if (cue.moreActions.length === 0) return [cue];
    const known = kept.get(cue) ?? [
      { ...cue, moreActions: [] },
      ...cue.moreActions.map((does): Cue => ({ ...cue, action: does, moreActions: [] })),
    ];
    kept.set(cue, known);
    return known;
  });
}

/** Cues that a cue waits for, itself first; a cue in a circle is listed once. */
export function cuesBehind(cue: Cue, cues: readonly Cue[]): Cue[] {
  const all = new Set([cue]);
  for (const next of all) {
    const other = next.trigger.kind === 'cue' ? namedIn(cues).get(next.trigger.cue ?? '') : undefined;
    if (other) all.add(other);
  }
  return [...all];
}

const named = new WeakMap<readonly Cue[], ReadonlyMap<string, Cue>>();

/** Cues by their ids, the first of each: asked for as often as one listens to another. */
function namedIn(cues: readonly Cue[]): ReadonlyMap<string, Cue> {
  const known = named.get(cues) ?? new Map([...cues].reverse().map((cue) => [cue.id, cue] as const));
  named.set(cues, known);
  return known;
}
