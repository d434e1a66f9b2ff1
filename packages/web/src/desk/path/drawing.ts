import { addPaths, drawnPath, freePathName } from '../../edits/path-edits';
import { sentenceOf } from '../../api/request';
import { notify } from '../../ui/notices';
import type { DeskStore } from '../desk-store';

/** Starts drawing a path, seen from above. */
export function startDrawing(desk: DeskStore): void {
  desk.getState().set({ tool: { kind: 'draw', places: [] }, view: 'plan', playing: false, landing: null });
}

/** Makes a path of the clicked places; fewer than two make none. */
export function finishDrawing(desk: DeskStore, closed: boolean): void {
  const { tool, shot, edit, set } = desk.getState();
  if (tool.kind !== 'draw') return;
  set({ tool: { kind: 'select' } });
  if (tool.places.length < 2) return;
  const name = freePathName(shot);
  const path = drawnPath(name, tool.places, closed);
  try {
    const { ids } = addPaths(shot, [path]);
    edit('Draw path', (before) => addPaths(before, [path]).shot);
    set({ pathId: ids[0], points: new Set() });
  } catch (error) {
    notify('error', sentenceOf(error));
  }
}

/** Takes the last clicked place back. */
export function takePlaceBack(desk: DeskStore): void {
  const { tool, set } = desk.getState();
  if (tool.kind === 'draw') set({ tool: { kind: 'draw', places: tool.places.slice(0, -1) } });
}

/** Leaves whatever a click would do; nothing is changed. */
export function cancelTool(desk: DeskStore): void {
  desk.getState().set({ tool: { kind: 'select' } });
}
