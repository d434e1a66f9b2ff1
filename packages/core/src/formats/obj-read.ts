import type { Vec3 } from '../geometry/math/vec.js';
import { chainEdges } from '../geometry/reshape/edge-runs.js';
import { FormatError } from './format-error.js';
import { baseName, pathOfPositions, type ImportOptions, type Imported, type Progress } from './imported.js';

/**
 * The lines (`l`) of a Wavefront OBJ file as straight-run paths. Lines of two points are chained into runs;
 * a run that comes back to its start is closed. Faces and everything else are passed over.
 *
 * @throws FormatError where there is no line, or one names a vertex the file does not have
 */
export function readObjLines(
  text: string,
  file: string,
  options: ImportOptions,
  onProgress?: Progress,
): Imported {
  const vertices: Vec3[] = [];
  const groups = new Map<string, [number, number][]>();
  let group = baseName(file);
  let faces = 0;
  const rows = text.split(/\r?\n/);
  rows.forEach((row, i) => {
    const words = row.trim().split(/\s+/);
    const at = `line ${i + 1}`;
    if (words[0] === 'v') vertices.push(vertexOf(words, file, at, options.scale));
    else if (words[0] === 'o' || words[0] === 'g') group = words.slice(1).join(' ') || group;
    else if (words[0] === 'f') faces++;
    else if (words[0] === 'l') {
      const run = words.slice(1).map((word) => indexOf(word, vertices.length, file, at));
      if (run.length < 2)
        throw new FormatError(file, `${at}: a line of ${run.length} points; expected 2 or more.`);
      const edges = groups.get(group) ?? [];
      for (let k = 1; k < run.length; k++) edges.push([run[k - 1], run[k]]);
      groups.set(group, edges);
    }
    if (i % 10_000 === 0) onProgress?.(i / rows.length);
  });
  if (groups.size === 0) {
    const held = faces > 0 ? ` It holds ${faces} faces: pick a run of edges of the model instead.` : '';
    throw new FormatError(file, `there are no lines (l) in this OBJ; expected at least one.${held}`);
  }
  const into: Imported = { paths: [], rides: [], notes: [] };
  for (const [name, edges] of groups) {
    const runs = chainEdges(edges);
    runs.forEach((run, i) => {
      const own = runs.length > 1 ? `${name} ${i + 1}` : name;
      const places = run.vertices.map((vertex) => vertices[vertex]);
      const how = { basis: 'polyline', closed: run.closed, tolerance: options.tolerance } as const;
      into.paths.push(pathOfPositions(file, own, places, how, into, onProgress));
    });
  }
  return into;
}

function vertexOf(words: readonly string[], file: string, at: string, scale: number): Vec3 {
  // Some write exponents without a sign of their own digit: 3.1+e2.
  const numbers = words.slice(1, 4).map((word) => Number(word.replace(/([+-])e(\d)/i, 'e$1$2')));
  if (numbers.length < 3 || !numbers.every(Number.isFinite)) {
    throw new FormatError(
      file,
      `${at}: found "${words.slice(1, 4).join(' ').slice(0, 60)}"; expected three numbers.`,
    );
  }
  return numbers.map((value) => value * scale) as Vec3;
}

/** OBJ counts from 1, and from −1 backward from the newest vertex. */
function indexOf(word: string, count: number, file: string, at: string): number {
  const number = Number(word.split('/')[0]);
  const index = number < 0 ? count + number : number - 1;
  if (!Number.isInteger(number) || index < 0 || index >= count) {
    throw new FormatError(
      file,
      `${at}: names vertex ${word.slice(0, 40)}, but ${count} are given before it.`,
    );
  }
  return index;
}
