import type { SvgPaths } from '@fleet-rail/core/svg';
import { wrap } from 'comlink';
import { addPaths } from '../../edits/path-edits';
import { notify } from '../../ui/notices';
import { readTextFile } from '../../ui/read-file';
import { sentenceOf } from '../../api/request';
import type { DeskStore } from '../desk-store';
import type { SvgReader } from './svg-worker';

const SVG_LIMIT = 16e6;

/** Adds the paths of an SVG file to the shot; a file that cannot be read changes nothing. */
export async function importSvg(desk: DeskStore, file: File, scale: number): Promise<void> {
  try {
    const text = await readTextFile(file, SVG_LIMIT);
    const { paths, passedOver } = await readInWorker(text, file.name, scale);
    const { edit, set, shot } = desk.getState();
    const { ids } = addPaths(shot, paths);
    edit(`Import ${file.name}`, (before) => addPaths(before, paths).shot);
    set({ pathId: ids[0], points: new Set() });
    const left = passedOver.length > 0 ? ` Passed over: ${passedOver.join(', ')}.` : '';
    notify('done', `${file.name}: ${paths.length} ${paths.length === 1 ? 'path' : 'paths'} added.${left}`);
  } catch (error) {
    notify('error', sentenceOf(error));
  }
}

/** Reads a drawing beside the page, which stays answered however large the drawing is. */
async function readInWorker(text: string, name: string, scale: number): Promise<SvgPaths> {
  const worker = new Worker(new URL('./svg-worker.ts', import.meta.url), { type: 'module' });
  try {
    return await wrap<SvgReader>(worker)(text, name, scale);
  } finally {
    worker.terminate();
  }
}
