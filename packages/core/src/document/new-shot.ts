import { parseShot } from './parse-shot.js';
import { SHOT_FORMAT, SHOT_VERSION, type Shot } from './shot.js';

/** What {@link parseShot} accepts for a class: every field optional, all the way down. */
export type Loose<T> = T extends (infer E)[]
  ? Loose<E>[]
  : T extends object
    ? { [K in keyof T]?: Loose<T[K]> }
    : T;

/** A shot with the given parts and defaults for the rest. */
export function newShot(parts: Loose<Omit<Shot, 'format' | 'version'>> & { name: string }): Shot {
  return parseShot({ format: SHOT_FORMAT, version: SHOT_VERSION, ...parts });
}

/** An id like `base`, or `base-2`, `base-3` … where that is taken. */
export function freeId(base: string, taken: readonly { id: string }[]): string {
  const clean =
    base
      .toLowerCase()
      .replace(/[^a-z0-9._-]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 48) || 'item';
  const used = new Set(taken.map((entry) => entry.id));
  if (!used.has(clean)) return clean;
  for (let n = 2; ; n++) if (!used.has(`${clean}-${n}`)) return `${clean}-${n}`;
}
