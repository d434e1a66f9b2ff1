import { readBvhRoot } from './bvh-root.js';
import { readCsvPaths } from './csv-read.js';
import { FormatError } from './format-error.js';
import type { ImportOptions, Imported, Progress } from './imported.js';
import { readObjLines } from './obj-read.js';
import { textOf } from './text-of.js';
import { readSvg } from './svg/svg-read.js';

export { FormatError };
export type { ImportOptions, Imported, ImportedRide, Progress } from './imported.js';

/** Endings of the files that paths are read from. */
export const PATH_FILES = ['.svg', '.obj', '.csv', '.glb', '.gltf', '.bvh'] as const;

/**
 * Paths, and motions along them, from a file of any supported kind.
 *
 * @param file       its name, whose ending says what it is
 * @param onProgress told the part that is done, from time to time
 * @throws FormatError where the file is of another kind, broken, or holds no path
 */
export async function readPaths(
  bytes: Uint8Array,
  file: string,
  options: ImportOptions,
  onProgress?: Progress,
): Promise<Imported> {
  const ending = /\.[^.]*$/.exec(file)?.[0].toLowerCase() ?? '';
  const text = () => textOf(bytes);
  switch (ending) {
    case '.svg': {
      const { paths, passedOver, notes, metresPerUnit, likely } = readSvg(
        text(),
        file,
        options.scale,
        onProgress,
        options.tolerance,
      );
      const passed = passedOver.length > 0 ? [`Passed over: ${passedOver.join(', ')}.`] : [];
      return { paths, rides: [], notes: [...passed, ...notes], metresPerUnit, likely };
    }
    case '.obj':
      return readObjLines(text(), file, options, onProgress);
    case '.csv':
      return readCsvPaths(text(), file, options, onProgress);
    case '.glb':
    case '.gltf': {
      // A separate library that the other kinds do not need.
      const { readGltfPaths } = await import('./gltf-paths-read.js');
      return readGltfPaths(bytes, file, options, onProgress);
    }
    case '.bvh':
      return readBvhRoot(text(), file, options);
    default:
      throw new FormatError(
        file,
        `is of a kind that holds no path; expected one of ${PATH_FILES.join(', ')}.`,
      );
  }
}
