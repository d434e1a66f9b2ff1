import { readSvg } from '@fleet-rail/core/svg';
import { addPaths } from '../../edits/path-edits';
import { notify } from '../../ui/notices';
import { readTextFile } from '../../ui/read-file';
import { sentenceOf } from '../../api/request';
import type { DeskStore } from '../desk-store';

const SVG_LIMIT = 16e6;

/** Adds the paths of an SVG file to the shot; a file that cannot be read changes nothing. */
export async function importSvg(desk: DeskStore, file: File, scale: number): Promise<void> {
  try {
    const { paths, passedOver } = readSvg(await readTextFile(file, SVG_LIMIT), file.name, scale);
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
