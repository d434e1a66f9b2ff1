import Papa from 'papaparse';
import { defaultsOf } from '../document/defaults.js';
import { PaceKey } from '../document/shot-pace.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { compilePath } from '../geometry/path/compile-path.js';
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

/** Columns of the coordinates in a row. */
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
 * - with a column `time` or `seconds`, `frame` or `timecode`: waypoints, a path and the keys to be there on time.
 * - `frame, time, rider, part, tx, ty, tz, …`, as it is handed over: each rider's own motion.
 *
 * Cells are parted by commas, tabs or semicolons; with those decimals may have commas. Lines after a `#` are passed over.
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
  const clock = CLOCKS.find((name) => headed && names.includes(name));
  if (clock) {
    const column = names.indexOf(clock);
    const frames = body.map((row) => frameOf(row, column, clock, file, options));
    addWaypoints(body, frames, places, file, options, into);
    into.notes.push(timedInWords(clock, frames, body.length > MOST_WAYPOINTS));
  } else {
    const how = { basis: 'through', closed: false, tolerance: options.tolerance } as const;
    into.paths.push(
      pathOfPositions(file, baseName(file), places, how, into, (part) => onProgress?.(0.5 + part / 2)),
    );
  }
  return into;
}

/** Columns that say when: frames as they are, seconds, or hours, minutes, seconds and frames. */
const CLOCKS = ['frame', 'frames', 'time', 'seconds', 'timecode'] as const;

function frameOf(
  row: Row,
  column: number,
  clock: (typeof CLOCKS)[number],
  file: string,
  { firstFrame, fps }: ImportOptions,
): number {
  const cell = (row.cells[column] ?? '').trim();
  const code = /^(\d+):(\d+):(\d+)[:;](\d+)$/.exec(cell);
  if (code) {
    const [hours, minutes, seconds, frames] = code.slice(1).map(Number);
    return firstFrame + (60 * (60 * hours + minutes) + seconds) * fps + frames;
  }
  if (clock === 'timecode')
    throw new FormatError(
      file,
      `line ${row.line}, column ${column + 1}: found "${cell.slice(0, 40)}"; expected a timecode as 00:00:10:12.`,
    );
  const value = numberAt(row, column, file);
  return clock.startsWith('frame') ? value : firstFrame + value * fps;
}

/** Result of a timed table until it is decided whether its times are used. */
function timedInWords(clock: string, frames: readonly number[], isThinned: boolean): string {
  const [first, last] = [frames[0], frames[frames.length - 1]].map((frame) => Number(frame.toFixed(2)));
  const becomes = isThinned
    ? 'a path and as many keys as that takes'
    : 'a path through them with a key at each';
  return `Its ${frames.length} rows are timed by ${clock}, frames ${first} to ${last}: they become ${becomes}.`;
}

interface Row {
  readonly line: number;
  readonly cells: readonly string[];
}

function parseRows(text: string, onProgress?: Progress): Row[] {
  const rows: Row[] = [];
  let line = 0;
  const clean = text.replace(/^\uFEFF/, '');
  const first =
    clean
      .slice(0, 10_000)
      .split(/\r?\n/)
      .find((row) => row.trim() !== '' && !row.startsWith('#')) ?? '';
  const delimiter = ['\t', ';'].find((mark) => first.includes(mark)) ?? ',';
  // A comma that separates no cells is a decimal comma.
  const plain = (cell: string) =>
    delimiter !== ',' && /^\s*[-+]?\d*,\d+(e[-+]?\d+)?\s*$/i.test(cell) ? cell.replace(',', '.') : cell;
  Papa.parse<string[]>(clean, {
    delimiter,
    step: ({ data, meta }) => {
      line++;
      const said = !data[0]?.startsWith('#') && data.some((cell) => cell.trim() !== '');
      if (said) rows.push({ line, cells: data.map(plain) });
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
  frames: readonly number[],
  places: readonly Vec3[],
  file: string,
  options: ImportOptions,
  into: Imported,
): void {
  const name = baseName(file);
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
  into.rides.push({ name, pathId: path.id, keys, lens: null });
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
