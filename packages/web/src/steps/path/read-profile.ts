import { FormatError } from '@fleet-rail/core/paths';
import { profileOfPath, type Dressing } from '@fleet-rail/core';
import { readWith } from './read-with';

/**
 * The first path of a drawing as a profile.
 *
 * @throws FormatError where it holds none
 */
export async function readProfile(file: File, width: number): Promise<Pick<Dressing, 'profile' | 'ring'>> {
  const worker = new Worker(new URL('./paths-worker.ts', import.meta.url), { type: 'module' });
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const {
      imported: { paths },
    } = await readWith(worker, bytes, file.name, {
      scale: 1,
      tolerance: 0.01,
      fps: 24,
      firstFrame: 1,
    });
    if (paths.length === 0) throw new FormatError(file.name, 'holds no path that could be a profile.');
    return profileOfPath(paths[0], width);
  } finally {
    worker.terminate();
  }
}
