import { LIMITS } from '@fleet-rail/core';
import type { Imported } from '@fleet-rail/core/paths';
import { proxy } from 'comlink';
import { create } from 'zustand';
import { sentenceOf } from '../../api/request';
import { onlySome, resized, withImported } from '../../edits/import-edits';
import { nextTask } from '../../ui/next-task';
import { notify } from '../../ui/notices';
import { readFileBytes } from '../../ui/read-file';
import type { DeskStore } from '../../state/desk-store';
import { viewOf, type ImportLook, type Importing } from '../../state/importing';
import { readWith } from './read-with';

const FILE_LIMIT = 64e6;

/** The file that is being read, and how far it is. */
interface Reading {
  readonly file: string;
  readonly part: number;
  readonly cancel: () => void;
}

/** File being read; null if there is none. */
export const useReading = create<{ reading: Reading | null }>(() => ({ reading: null }));

/** Takes in paths that were asked for; a mesh among them offers to be a model. */
export function importOrOffer(
  desk: DeskStore,
  file: File,
  scale: number,
  tolerance: number,
  asModel: (files: readonly File[]) => Promise<void>,
): void {
  const told = (error: unknown) => notify('error', sentenceOf(error));
  importPaths(desk, file, scale, tolerance).catch((error: unknown) => {
    if (!(/\.obj$/i.test(file.name) && /It holds \d+ faces/.test(sentenceOf(error)))) return told(error);
    const run = () => void asModel([file]).catch(told);
    notify('error', sentenceOf(error), { name: 'Add it as a model', run });
  });
}

/**
 * Reads the paths of a file, and takes them in or asks which.
 *
 * @throws Error in what comes back, with a sentence to show; nothing is changed then
 */
export async function importPaths(
  desk: DeskStore,
  file: File,
  scale: number,
  tolerance: number,
): Promise<void> {
  const worker = new Worker(new URL('./paths-worker.ts', import.meta.url), { type: 'module' });
  const { fps, range } = desk.getState().shot;
  const cancelled = new Promise<null>((resolve) => {
    useReading.setState({ reading: { file: file.name, part: 0, cancel: () => resolve(null) } });
  });
  const onProgress = (part: number) =>
    useReading.setState(({ reading }) => ({ reading: reading && { ...reading, part } }));
  try {
    const bytes = await readFileBytes(file, FILE_LIMIT);
    const options = { scale, fps, firstFrame: range.first, tolerance };
    const read = readWith(worker, bytes, file.name, options, proxy(onProgress));
    const found = await Promise.race([read, cancelled]);
    if (found === null) notify('done', `${file.name}: reading was cancelled, nothing was changed.`);
    else {
      await nextTask();
      offer(desk, file.name, scale, found);
    }
  } finally {
    worker.terminate();
    useReading.setState({ reading: null });
  }
}

/** A file of one path is imported immediately; of several, timed, or sized ones it is asked which. */
function offer(
  desk: DeskStore,
  file: string,
  scale: number,
  { imported, looks }: { imported: Imported; looks: ImportLook[] },
): void {
  const { paths, rides, metresPerUnit, likely } = imported;
  const { shot, set } = desk.getState();
  const told = metresPerUnit ?? null;
  if (paths.length === 1 && rides.length === 0 && told === null) return take(desk, file, imported);
  const free = LIMITS.paths - shot.paths.length;
  const meant = Math.min(free, likely || paths.length);
  const chosen = new Set(Array.from({ length: meant }, (_, i) => i));
  const importing: Importing = { file, imported, scale, looks, chosen, times: 1 };
  set({ importing, playing: false, lookFrom: viewOf(importing) });
}

/** Chosen paths in their final size. */
export function chosenOf({ imported, chosen, times }: Importing): Imported {
  return resized(onlySome(imported, chosen), times);
}

/** Takes paths into the shot as one step. */
export function take(desk: DeskStore, file: string, imported: Imported): void {
  const { edit, set, shot } = desk.getState();
  const { ids } = withImported(shot, imported);
  edit(`Import ${file}`, (before) => withImported(before, imported).shot);
  set({ pathId: ids[0], points: new Set() });
  const paths = `${imported.paths.length} ${imported.paths.length === 1 ? 'path' : 'paths'} added`;
  const rides = imported.rides.length > 0 ? `, ridden by ${imported.rides.length} of their motions` : '';
  notify('done', [`${file}: ${paths}${rides}.`, ...imported.notes].join(' '));
}
