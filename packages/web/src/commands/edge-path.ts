import { PathPoint, ShotPath, centreLine, defaultsOf, freeId } from '@fleet-rail/core';
import { freePathName } from '../edits/path-edits';
import type { DeskStore } from '../state/desk-store';
import { putPaths } from './drawing';

/** Makes a path of the picked edges: one unchanged, two by the line midway between them. */
export function finishEdges(desk: DeskStore): void {
  const { tool, shot, set } = desk.getState();
  if (tool.kind !== 'edges' || tool.runs.length === 0) return;
  const [first, second] = tool.runs;
  const run = second ? centreLine(first, second) : first;
  set({ tool: { kind: 'select' } });
  const name = freePathName(shot);
  const plain = defaultsOf(PathPoint);
  const path: ShotPath = {
    ...defaultsOf(ShotPath),
    id: freeId(name, []),
    name,
    basis: 'polyline',
    closed: run.closed,
    points: run.places.map((position) => ({ ...plain, position: [...position] })),
  };
  putPaths(desk, 'Path from edges', [path]);
}
