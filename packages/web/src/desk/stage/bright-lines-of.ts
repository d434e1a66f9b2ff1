import type { DeskState, EdgePick } from '../desk-store';

const NO_LINES: readonly ArrayLike<number>[] = [];

/** What would be: the result of an operation, or runs of edges that were picked. */
export function brightLines({ preview, operation, tool }: DeskState): readonly ArrayLike<number>[] {
  if (tool.kind === 'edges') return edgeLines(tool.runs);
  if (operation === null || preview === null || !('preview' in preview)) return NO_LINES;
  return preview.preview.lines;
}

const linesOfRuns = new WeakMap<readonly EdgePick[], readonly number[][]>();

/** Runs as lines; the same list for the same runs, so that it is drawn anew only when they change. */
function edgeLines(runs: readonly EdgePick[]): readonly number[][] {
  const lines =
    linesOfRuns.get(runs) ??
    runs.map(({ places, closed }) => (closed ? [...places, places[0]] : [...places]).flat());
  linesOfRuns.set(runs, lines);
  return lines;
}
