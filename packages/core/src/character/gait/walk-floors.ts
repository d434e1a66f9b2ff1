import type { Clip } from '../hierarchy/node-hierarchy.js';

/** By walk clip how low it ever has the soles of its feet, metres of the model: all who walk by it have the same. */
const walkFloors = new WeakMap<Clip, Map<string, number>>();

/** Floors of a clip by foot, cached; new ones are added. */
export function floorsOf(clip: Clip): Map<string, number> {
  const known = walkFloors.get(clip) ?? new Map<string, number>();
  walkFloors.set(clip, known);
  return known;
}
