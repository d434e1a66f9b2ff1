import { PathError, compilePath, type CompiledPath, type ShotPath } from '@fleet-rail/core';
import { drawnPath } from '../edits/drawn-path';
import { addPaths, freePathName } from '../edits/path-edits';
import { rideWaypoints, waypointRider } from '../edits/waypoints';
import { sentenceOf } from '../api/request';
import { notify } from '../ui/notices';
import { attempt } from './attempt';
import type { DeskStore } from '../state/desk-store';

/** Starts drawing a path, seen from above unless it is seen from the side already. */
export function startDrawing(desk: DeskStore): void {
  const { view, set } = desk.getState();
  set({
    tool: { kind: 'draw', places: [] },
    view: view === 'free' ? 'plan' : view,
    playing: false,
    attaching: null,
    operation: null,
  });
}

/** Makes a path of the clicked places; fewer than two make none. */
export function finishDrawing(desk: DeskStore, closed: boolean): void {
  const { tool, drawing, shot, set } = desk.getState();
  if (tool.kind !== 'draw') return;
  set({ tool: { kind: 'select' } });
  if (tool.places.length < 2) return;
  const path = drawnPath(freePathName(shot), tool.places, closed, drawing.kind);
  let curve: CompiledPath;
  try {
    curve = compilePath(path);
  } catch (error) {
    // All clicks at one point: there is nothing to keep, and the reason is shown.
    if (!(error instanceof PathError)) throw error;
    notify('error', error.message);
    return;
  }
  const gesture = `draw ${path.id} ${tool.places.length}`;
  if (!putPaths(desk, 'Draw path', [path], gesture) || drawing.seconds === null) return;
  const { pathId } = desk.getState();
  const rider = waypointRider(desk.getState().shot, desk.getState().riderId);
  if (pathId === null) return;
  if (attempt(desk, 'Draw path', rideWaypoints(rider, pathId, curve, closed, drawing.seconds), gesture))
    set({ riderId: desk.getState().shot.riders.find((one) => one.attachment?.path === pathId)?.id ?? null });
}

/** Adds paths to the shot as one step and selects the first; false, with the reason shown, if they do not fit. */
export function putPaths(
  desk: DeskStore,
  label: string,
  paths: readonly ShotPath[],
  gesture?: string,
): boolean {
  const { shot, edit, set } = desk.getState();
  try {
    const { ids } = addPaths(shot, paths);
    edit(label, (before) => addPaths(before, paths).shot, gesture);
    set({ pathId: ids[0], points: new Set() });
    return true;
  } catch (error) {
    notify('error', sentenceOf(error));
    return false;
  }
}

/** Takes the last clicked place, or the last picked run, back. */
export function takePlaceBack(desk: DeskStore): void {
  const { tool, set } = desk.getState();
  if (tool.kind === 'draw') set({ tool: { kind: 'draw', places: tool.places.slice(0, -1) } });
  else if (tool.kind === 'edges') set({ tool: { kind: 'edges', runs: tool.runs.slice(0, -1) } });
}

/** Leaves whatever a click would do; nothing is changed. */
export function cancelTool(desk: DeskStore): void {
  desk.getState().set({ tool: { kind: 'select' } });
}
