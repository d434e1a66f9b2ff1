import Papa from 'papaparse';
import { defaultsOf } from '../document/defaults.js';
import { PaceKey } from '../document/shot-pace.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { FormatError } from './format-error.js';
import {
  addMotion,
  baseName,
  pathOfPositions,
  refuseLate,
  type ImportOptions,
  type Imported,
  type Progress,
} from './imported.js';

/** Waypoints up to this many become points of their own, each with its key. */
const MOST_WAYPOINTS = 500;

/** Where in a row the numbers of a place stand. */
interface Columns {
  readonly x: number;
  /** −1 where rows have no height. */
  readonly y: number;
  readonly z: number;
}

/**
 * Points, waypoints or motions from a table.
 *
 * - `x, y, z` (or just three columns; or `x, z`): a path through the points.
 * - with a column `time` (seconds) or `frame`: waypoints, a path and the keys to be there on time.
 * - `frame, time, rider, part, tx, ty, tz, …`, as it is handed over: each rider's own motion.
 *
 * @throws FormatError with the line of what cannot be read
 */
export function readCsvPaths(
  text: string,
  file: string,
  options: ImportOptions,
  onProgress?: Progress,
): Imported {
  const rows = parseRows(text, onProgress);
  if (rows.length === 0) throw new FormatError(file, 'is empty; expected rows of x, y, z.');
  const names = rows[0].cells.map((cell) => cell.trim().toLowerCase());
  const headed = names.some((name) => name !== '' && !Number.isFinite(Number(name)) && name !== 'nan');
  const into: Imported = { paths: [], rides: [], notes: [] };
  if (headed && names.includes('tx')) {
    addMotions(rows.slice(1), names, file, options, into);
    return into;
  }
  const columns = headed ? namedColumns(names, file) : plainColumns(rows[0].cells.length, file);
  const body = headed ? rows.slice(1) : rows;
  const places = body.map((row) => pointOfRow(row, columns, file, options.scale));
  const clock = ['frame', 'time'].find((name) => headed && names.includes(name));
  if (clock) addWaypoints(body, places, names.indexOf(clock), clock === 'time', file, options, into);
  else {
    const how = { basis: 'through', closed: false, tolerance: options.tolerance } as const;
    into.paths.push(
      pathOfPositions(file, baseName(file), places, how, into, (part) => onProgress?.(0.5 + part / 2)),
    );
  }
  return into;
}

interface Row {
  readonly line: number;
  readonly cells: readonly string[];
}

function parseRows(text: string, onProgress?: Progress): Row[] {
  const rows: Row[] = [];
  let line = 0;
  const clean = text.replace(/^\uFEFF/, '');
  Papa.parse<string[]>(clean, {
    delimiter: ['\t', ';'].find((mark) => clean.slice(0, 1_000).split('\n')[0].includes(mark)) ?? ',',
    step: ({ data, meta }) => {
      line++;
      if (data.some((cell) => cell.trim() !== '')) rows.push({ line, cells: data });
      if (line % 5_000 === 0) onProgress?.((0.5 * meta.cursor) / text.length);
    },
  });
  return rows;
}

function namedColumns(names: readonly string[], file: string): Columns {
  const at = (name: string) => names.indexOf(name);
  if (at('x') < 0 || at('z') < 0) {
    throw new FormatError(
      file,
      `line 1: found columns ${names.join(', ').slice(0, 100)}; expected x, y, z (and time or frame for waypoints).`,
    );
  }
  return { x: at('x'), y: at('y'), z: at('z') };
}

function plainColumns(count: number, file: string): Columns {
  if (count === 3) return { x: 0, y: 1, z: 2 };
  if (count === 2) return { x: 0, y: -1, z: 1 };
  throw new FormatError(
    file,
    `line 1: found ${count} columns without names; expected x, y, z, or a first line that names them.`,
  );
}

function pointOfRow(row: Row, { x, y, z }: Columns, file: string, scale: number): Vec3 {
  return [x, y, z].map((column) => (column < 0 ? 0 : scale * numberAt(row, column, file))) as Vec3;
}

function numberAt({ line, cells }: Row, column: number, file: string): number {
  const cell = (cells[column] ?? '').trim();
  const value = Number(cell);
  if (cell === '' || !Number.isFinite(value)) {
    const found = cell === '' ? 'nothing' : `"${cell.slice(0, 40)}"`;
    throw new FormatError(file, `line ${line}, column ${column + 1}: found ${found}; expected a number.`);
  }
  return value;
}

function rising(frames: readonly number[], rows: readonly Row[], file: string): void {
  const i = frames.findIndex((frame, n) => n > 0 && !(frame > frames[n - 1]));
  if (i >= 0)
    throw new FormatError(
      file,
      `line ${rows[i].line}: its time is not later than the one before; expected rising times.`,
    );
}

function addWaypoints(
  rows: readonly Row[],
  places: readonly Vec3[],
  column: number,
  seconds: boolean,
  file: string,
  options: ImportOptions,
  into: Imported,
): void {
  const name = baseName(file);
  const frames = rows.map((row) => {
    const value = numberAt(row, column, file);
    return seconds ? options.firstFrame + value * options.fps : value;
  });
  rising(frames, rows, file);
  refuseLate(file, name, frames);
  if (places.length > MOST_WAYPOINTS) {
    addMotion(file, name, frames, places, options, into);
    return;
  }
  const how = { basis: 'through', closed: false, tolerance: options.tolerance } as const;
  const path = pathOfPositions(file, name, places, how, into);
  const { pointDistances } = compilePath(path);
  const plain = defaultsOf(PaceKey);
  let point = -1;
  const keys = places.map((place, i): PaceKey => {
    if (i === 0 || place.some((value, k) => value !== places[i - 1][k])) point++;
    return { ...plain, frame: frames[i], value: pointDistances[point], ease: 'smooth' };
  });
  into.paths.push(path);
  into.rides.push({ name, pathId: path.id, keys });
}

function addMotions(
  rows: readonly Row[],
  names: readonly string[],
  file: string,
  options: ImportOptions,
  into: Imported,
): void {
  const column = (name: string): number => {
    const at = names.indexOf(name);
    if (at < 0)
      throw new FormatError(file, `line 1: there is no column ${name}; expected frame, tx, ty, tz.`);
    return at;
  };
  const [frame, tx, ty, tz] = ['frame', 'tx', 'ty', 'tz'].map(column);
  const rider = names.indexOf('rider');
  const part = names.indexOf('part');
  const byRider = new Map<string, Row[]>();
  for (const row of rows) {
    if (part >= 0 && (row.cells[part] ?? '') !== '') continue;
    const name = (rider >= 0 ? row.cells[rider] : '') || baseName(file);
    const own = byRider.get(name);
    if (own) own.push(row);
    else byRider.set(name, [row]);
  }
  if (byRider.size === 0) throw new FormatError(file, 'holds no rows of a motion; expected at least two.');
  for (const [name, own] of byRider) {
    const frames = own.map((row) => numberAt(row, frame, file));
    rising(frames, own, file);
    const places = own.map((row) => pointOfRow(row, { x: tx, y: ty, z: tz }, file, options.scale));
    addMotion(file, name, frames, places, options, into);
  }
  if (into.paths.length === 0) throw new FormatError(file, 'nothing moves in it; expected a motion.');
}
