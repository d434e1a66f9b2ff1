import type { Cue } from './shot-cue.js';

const kept = new WeakMap<Cue, readonly Cue[]>();

/** Cues that do one thing each: one that does several is told as so many. */
export function eachAction(cues: readonly Cue[]): readonly Cue[] {
  if (cues.every(({ also }) => also.length === 0)) return cues;
  return cues.flatMap((cue) => {
    if (cue.also.length === 0) return [cue];
    const known = kept.get(cue) ?? [
      { ...cue, also: [] },
      ...cue.also.map((does): Cue => ({ ...cue, does, also: [] })),
    ];
    kept.set(cue, known);
    return known;
  });
}

/** The cues whose coming a cue listens to, itself first; one that listens in a circle is told but once. */
export function cuesBehind(cue: Cue, cues: readonly Cue[]): Cue[] {
  const all = new Set([cue]);
  for (const next of all) {
    const other = next.on.kind === 'cue' ? cues.find(({ id }) => id === next.on.cue) : undefined;
    if (other) all.add(other);
  }
  return [...all];
}
