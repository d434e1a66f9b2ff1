import { PathError, compiledPathOf, type ShotPath } from '@fleet-rail/core';
import { readPaths, type Imported } from '@fleet-rail/core/paths';
import { expose } from 'comlink';
import type { ImportLook } from '../../state/importing';

/** Places of all lines together, and of one at least and at most: a few are seen as smooth as they are, many stay quick. */
const PLACES = { all: 20_000, least: 48, most: 400 };

/** Points sent to the page at a time: more would hold it up. */
const AT_ONCE = 5_000;

/** Results that were not fetched yet. */
let waiting: ShotPath[] = [];

/** Reads a file; its paths are fetched after that. */
async function read(
  ...given: Parameters<typeof readPaths>
): Promise<{ rest: Omit<Imported, 'paths'>; looks: ImportLook[] }> {
  const { paths, ...rest } = await readPaths(...given);
  waiting = [...paths];
  return { rest, looks: looksOf(paths) };
}

/** The next of its paths, in order; none when all were given. */
function next(): ShotPath[] {
  let [points, count] = [0, 0];
  while (count < waiting.length && points < AT_ONCE) points += waiting[count++].points.length;
  return waiting.splice(0, count);
}

function looksOf(paths: readonly ShotPath[]): ImportLook[] {
  const shared = Math.floor(PLACES.all / paths.length);
  const places = Math.min(PLACES.most, Math.max(PLACES.least, shared));
  return paths.map((path): ImportLook => {
    const curve = compiledPathOf(path);
    if (curve instanceof PathError) return { length: null, line: new Float32Array(0) };
    const line = new Float32Array(3 * (places + 1));
    for (let i = 0; i <= places; i++)
      curve.position((curve.length * i) / places, line.subarray(3 * i, 3 * i + 3));
    return { length: curve.length, line };
  });
}

const api = { read, next };

export type PathsReader = typeof api;

expose(api);
