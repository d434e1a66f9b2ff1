import { parseShot } from './parse-shot.js';
import { SHOT_FORMAT, SHOT_VERSION, type Shot } from './shot.js';

/** Input of {@link parseShot} for a class: every field optional, at every level. */
export type Loose<T> = T extends (infer E)[]
  ? Loose<E>[]
  : T extends object
    ? { [K in keyof T]?: Loose<T[K]> }
    : T;

/** A shot with the given parts and defaults for the rest. */
export function newShot(parts: Loose<Omit<Shot, 'format' | 'version'>> & { name: string }): Shot {
  return parseShot({ format: SHOT_FORMAT, version: SHOT_VERSION, ...parts });
}
