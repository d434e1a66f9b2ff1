import { tryBvh, tryCsv, tryDocument, tryGlb, tryGlbPaths, tryObj, trySvg } from './try-file.js';
import { tryEarlier } from './earlier-shots.js';
import { tryShot } from './try-shot.js';

/** By kind what tries one input, made from a seed; it gives what is wrong, or null. */
export const KINDS = {
  shots: (seed) => tryShot(seed),
  // Physics takes its time, and sizes here are of any order.
  built: (seed) => tryShot(seed, { most: 20, built: true }),
  extremes: (seed) => tryShot(seed, { most: 5, extreme: true }),
  earlier: tryEarlier,
  documents: tryDocument,
  svg: trySvg,
  obj: tryObj,
  csv: tryCsv,
  bvh: tryBvh,
  glb: tryGlb,
  'glb-paths': tryGlbPaths,
} satisfies Record<string, (seed: number) => string | null | Promise<string | null>>;
