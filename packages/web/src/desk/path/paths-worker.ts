import { PathError, compiledPathOf } from '@fleet-rail/core';
import { readPaths, type Imported } from '@fleet-rail/core/paths';
import { expose } from 'comlink';
import type { ImportLook } from '../importing';

/** Places of a sketch. */
const PLACES = 48;

async function readWithLooks(
  ...given: Parameters<typeof readPaths>
): Promise<{ imported: Imported; looks: ImportLook[] }> {
  const imported = await readPaths(...given);
  const looks = imported.paths.map((path): ImportLook => {
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) return { length: null, line: new Float32Array(0) };
    const line = new Float32Array(2 * (PLACES + 1));
    const place = new Float64Array(3);
    for (let i = 0; i <= PLACES; i++) {
      curve.position((curve.length * i) / PLACES, place);
      line.set([place[0], place[2]], 2 * i);
    }
    return { length: curve.length, line };
  });
  return { imported, looks };
}

export type PathsReader = typeof readWithLooks;

expose(readWithLooks);
