import { PathError, compiledPathOf } from '@fleet-rail/core';
import { readPaths, type Imported } from '@fleet-rail/core/paths';
import { expose } from 'comlink';
import type { ImportLook } from '../importing';

/** Places of all lines together, and of one at least and at most: a few are seen as smooth as they are, many stay quick. */
const PLACES = { all: 40_000, least: 48, most: 400 };

async function readWithLooks(
  ...given: Parameters<typeof readPaths>
): Promise<{ imported: Imported; looks: ImportLook[] }> {
  const imported = await readPaths(...given);
  const shared = Math.floor(PLACES.all / imported.paths.length);
  const places = Math.min(PLACES.most, Math.max(PLACES.least, shared));
  const looks = imported.paths.map((path): ImportLook => {
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) return { length: null, line: new Float32Array(0) };
    const line = new Float32Array(3 * (places + 1));
    for (let i = 0; i <= places; i++)
      curve.position((curve.length * i) / places, line.subarray(3 * i, 3 * i + 3));
    return { length: curve.length, line };
  });
  return { imported, looks };
}

export type PathsReader = typeof readWithLooks;

expose(readWithLooks);
