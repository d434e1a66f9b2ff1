import type { ShotPath } from '../document/shot-path.js';
import { compilePath } from '../path/compile-path.js';
import type { CompiledPath } from '../path/compiled-path.js';
import { PathError } from '../path/path-error.js';

const compiledPaths = new WeakMap<ShotPath, CompiledPath | PathError>();

/** The curve of a path of the document, computed once for as long as that path is unchanged. */
export function compiledPathOf(path: ShotPath): CompiledPath | PathError {
  const known = compiledPaths.get(path);
  if (known !== undefined) return known;
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
