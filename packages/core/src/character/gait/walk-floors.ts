import type { Clip } from '../hierarchy/node-hierarchy.js';

/** By walk clip how low it ever has the soles of its feet, metres of the model: all who walk by it have the same. */
const walkFloors = new WeakMap<Clip, Map<string, number>>();

/** The floors of a clip that are known so far, by foot; new ones are put in. */
export function floorsOf(clip: Clip): Map<string, number> {
  const known = walkFloors.get(clip) ?? new Map<string, number>();
  walkFloors.set(clip, known);
  return known;
}
