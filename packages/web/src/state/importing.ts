import type { Vec3 } from '@fleet-rail/core';
import type { Imported } from '@fleet-rail/core/paths';

/** How a path of a file looks. */
export interface ImportLook {
  /** Metres; null where it has no curve. */
  readonly length: number | null;
  /** x, y and z in turn, evenly spaced along it, metres as read. */
  readonly line: Float32Array;
}

/** File that was read and is not imported yet: chosen paths and size. */
export interface Importing {
  readonly file: string;
  /** As read, for a number of metres to a unit of the file. */
  readonly imported: Imported;
  readonly scale: number;
  readonly looks: readonly ImportLook[];
  readonly chosen: ReadonlySet<number>;
  /** Scale of the import. */
  readonly times: number;
}

/** Units that a file may have, metres. */
export const FILE_UNITS = [
  { id: 'm', name: 'metre', metres: 1 },
  { id: 'cm', name: 'centimetre', metres: 0.01 },
  { id: 'mm', name: 'millimetre', metres: 0.001 },
  { id: 'in', name: 'inch', metres: 0.0254 },
  { id: 'px', name: 'pixel, 96 an inch', metres: 0.0254 / 96 },
] as const;

/** The same read in another unit: metres to a unit of the file. */
export const withUnit = (importing: Importing, metres: number): Importing => ({
  ...importing,
  times: metres / importing.scale,
});

/** Longest of the chosen paths, metres as read; 0 without any length. */
export const longestOf = ({ looks, chosen }: Importing): number =>
  looks.reduce((most, { length }, i) => (chosen.has(i) ? Math.max(most, length ?? 0) : most), 0);

const shownLines = new WeakMap<Importing, readonly Float32Array[]>();

/** Chosen paths as lines of x, y, z a point, in their final size; the same lines for the same choice. */
export function linesOf(importing: Importing): readonly Float32Array[] {
  const { looks, chosen, times } = importing;
  const lines =
    shownLines.get(importing) ??
    looks.filter((_, i) => chosen.has(i)).map(({ line }) => line.map((value) => value * times));
  shownLines.set(importing, lines);
  return lines;
}

/** The corner that is furthest from the middle of the world of the box around what is chosen, x and z; null where there is none. */
export function farCorner(importing: Importing): [number, number] | null {
  let [x, z] = [0, 0];
  for (const line of linesOf(importing))
    for (let k = 0; k < line.length; k += 3) {
      if (Math.abs(line[k]) > Math.abs(x)) x = line[k];
      if (Math.abs(line[k + 2]) > Math.abs(z)) z = line[k + 2];
    }
  return x === 0 && z === 0 ? null : [x, z];
}

/** The same with its far corner as far away as a place: all grows about the middle of the world. */
export function draggedTo(importing: Importing, [x, , z]: readonly [number, number, number]): Importing {
  const corner = farCorner(importing);
  if (corner === null) return importing;
  // Along the corner's own way, so that the hand may stray beside it.
  const square = corner[0] ** 2 + corner[1] ** 2;
  const times = (importing.times * (x * corner[0] + z * corner[1])) / square;
  return times > 1e-9 ? { ...importing, times } : importing;
}

/** From where all of what is chosen is seen. */
export function viewOf(importing: Importing): { from: Vec3; at: Vec3 } | null {
  let [left, right, back, front] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const line of linesOf(importing))
    for (let k = 0; k < line.length; k += 3) {
      [left, right] = [Math.min(left, line[k]), Math.max(right, line[k])];
      [back, front] = [Math.min(back, line[k + 2]), Math.max(front, line[k + 2])];
    }
  if (!(right >= left)) return null;
  const [x, z] = [(left + right) / 2, (back + front) / 2];
  const reach = Math.max(2, Math.hypot(right - left, front - back) / 2);
  return { at: [x, 0, z], from: [x + 0.3 * reach, 1.7 * reach, z + 1.5 * reach] };
}
