import {
  LIMITS,
  Rider,
  ShotError,
  defaultsOf,
  freeBadge,
  freeId,
  leastUsedColor,
  newHitch,
  type Shot,
} from '@fleet-rail/core';
import type { Imported, ImportedRide } from '@fleet-rail/core/paths';
import { proxy, wrap } from 'comlink';
import { create } from 'zustand';
import { sentenceOf } from '../../api/request';
import { addPaths } from '../../edits/path-edits';
import { nextTask } from '../../evaluation/next-task';
import { notify } from '../../ui/notices';
import { readFileBytes } from '../../ui/read-file';
import type { DeskStore } from '../desk-store';
import type { PathsReader } from './paths-worker';

const FILE_LIMIT = 64e6;

/** The file that is being read, and how far it is. */
interface Reading {
  readonly file: string;
  readonly part: number;
  readonly cancel: () => void;
}

/** What is being read now; null while nothing is. */
export const useReading = create<{ reading: Reading | null }>(() => ({ reading: null }));

/** Adds the paths of a file to the shot, and riders for its motions; a file that cannot be read changes nothing. */
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
    const read = wrap<PathsReader>(worker)(bytes, file.name, options, proxy(onProgress));
    const imported = await Promise.race([read, cancelled]);
    if (imported === null) notify('done', `${file.name}: reading was cancelled, nothing was changed.`);
    else {
      await nextTask();
      take(desk, file.name, imported);
    }
  } catch (error) {
    notify('error', sentenceOf(error));
  } finally {
    worker.terminate();
    useReading.setState({ reading: null });
  }
}

function take(desk: DeskStore, file: string, imported: Imported): void {
  const { edit, set, shot } = desk.getState();
  const { ids } = addPaths(shot, imported.paths);
  const riders = shot.riders.length + imported.rides.length;
  if (riders > LIMITS.riders) throw new ShotError('riders', `${riders} of them`, `at most ${LIMITS.riders}`);
  edit(`Import ${file}`, (before) => withImported(before, imported));
  set({ pathId: ids[0], points: new Set() });
  const paths = `${imported.paths.length} ${imported.paths.length === 1 ? 'path' : 'paths'} added`;
  const rides = imported.rides.length > 0 ? `, ridden by ${imported.rides.length} of their motions` : '';
  notify('done', [`${file}: ${paths}${rides}.`, ...imported.notes].join(' '));
}

/** A shot with imported paths, and a carrier on each that has a motion. */
function withImported(shot: Shot, { paths, rides }: Imported): Shot {
  const { shot: after, ids } = addPaths(shot, paths);
  const idOf = new Map(paths.map((path, i) => [path.id, ids[i]]));
  return rides.reduce(
    (before, ride) => withCarrier(before, ride, idOf.get(ride.pathId) ?? ride.pathId),
    after,
  );
}

function withCarrier(shot: Shot, { name, keys }: ImportedRide, path: string): Shot {
  const hitch = newHitch(path, shot.range);
  const rider: Rider = {
    ...defaultsOf(Rider),
    id: freeId(name, shot.riders),
    name: name.slice(0, 200) || 'Motion',
    kind: 'carrier',
    badge: freeBadge(name, shot),
    color: leastUsedColor(shot),
    hitch: { ...hitch, pace: { ...hitch.pace, unit: 'metres', keys } },
  };
  return { ...shot, riders: [...shot.riders, rider] };
}
