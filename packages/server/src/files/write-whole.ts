import { randomUUID } from 'node:crypto';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname } from 'node:path';

/** Suffix of a file that is not complete yet. */
export const PARTIAL = '.part';

/**
 * Stores a file whole or not at all, in a folder that is made where it is missing.
 *
 * @param write writes it where it lies until it is whole; where it throws, nothing is stored
 */
export async function writeWhole(path: string, write: (partial: string) => Promise<void>): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  const partial = `${path}.${randomUUID()}${PARTIAL}`;
  try {
    await write(partial);
    await rename(partial, path);
  } catch (error) {
    await rm(partial, { force: true });
    throw error;
  }
}
