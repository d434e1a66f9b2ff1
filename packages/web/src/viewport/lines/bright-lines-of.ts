import { PathError, compiledPathOf, type Shot } from '@fleet-rail/core';
import type { DeskState, EdgePick, ShownBefore } from '../../state/desk-store';
import { linesOf } from '../../state/importing';

const NO_LINES: readonly ArrayLike<number>[] = [];

/** Preview lines: the result of an operation, paths of a previewed shot, chosen paths of a file, or picked edges. */
export function brightLines({
  preview,
  operation,
  tool,
  shot,
  shownBefore,
  importing,
}: DeskState): readonly ArrayLike<number>[] {
  if (tool.kind === 'edges') return edgeLines(tool.runs);
  if (importing) return linesOf(importing);
  if (shownBefore) return otherPaths(shot, shownBefore);
  if (operation === null || preview === null || !('preview' in preview)) return NO_LINES;
  return preview.preview.lines;
}

/** So many places of a line. */
const PLACES = 400;
const linesShownBefore = new WeakMap<ShownBefore, readonly Float32Array[]>();

/** The paths that a shot shown before it is taken has in another shape. */
function otherPaths({ paths }: Shot, shownBefore: ShownBefore): readonly Float32Array[] {
  const known = linesShownBefore.get(shownBefore);
  if (known) return known;
  const same = new Set(paths);
  const lines = shownBefore.shot.paths.flatMap((path) => {
    const curve = same.has(path) ? null : compiledPathOf(path);
    if (curve === null || curve instanceof PathError) return [];
    const line = new Float32Array(3 * (PLACES + 1));
    for (let i = 0; i <= PLACES; i++)
      curve.position((curve.length * i) / PLACES, line.subarray(3 * i, 3 * i + 3));
    return [line];
  });
  linesShownBefore.set(shownBefore, lines);
  return lines;
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
