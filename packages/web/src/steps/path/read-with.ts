import type { ShotPath } from '@fleet-rail/core';
import type { Imported } from '@fleet-rail/core/paths';
import { wrap } from 'comlink';
import type { ImportLook } from '../../state/importing';
import type { PathsReader } from './paths-worker';

/** File read by a worker, its paths fetched a few at a time. */
export async function readWith(
  worker: Worker,
  ...given: Parameters<PathsReader['read']>
): Promise<{ imported: Imported; looks: ImportLook[] }> {
  const reader = wrap<PathsReader>(worker);
  const { rest, looks } = await reader.read(...given);
  const paths: ShotPath[] = [];
  for (let more = await reader.next(); more.length > 0; more = await reader.next()) paths.push(...more);
  return { imported: { ...rest, paths }, looks };
}
