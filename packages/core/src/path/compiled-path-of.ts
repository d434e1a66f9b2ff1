import type { ShotPath } from '../document/shot-path.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';
import { PathError } from './path-error.js';

const compiledPaths = new WeakMap<ShotPath, CompiledPath | PathError>();

/** The curve of a path of the document, computed once for as long as that path is unchanged. */
export function compiledPathOf(path: ShotPath): CompiledPath | PathError {
  const cached = compiledPaths.get(path);
  if (cached !== undefined) return cached;
  let result: CompiledPath | PathError;
  try {
    result = compilePath(path);
  } catch (error) {
    if (!(error instanceof PathError)) throw error;
    result = error;
  }
  compiledPaths.set(path, result);
  return result;
}

/** The curve of the path that a rider is hitched to; null where it has none. */
export function curveRidden(
  { paths }: Pick<Shot, 'paths'>,
  rider: Rider | null | undefined,
): CompiledPath | null {
  const path = paths.find(({ id }) => id === rider?.hitch?.path);
  const curve = path && compiledPathOf(path);
  return curve && !(curve instanceof PathError) ? curve : null;
}
