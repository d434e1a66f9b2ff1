import type { Vec3 } from '../geometry/math/vec.js';
import { parseBvh } from './bvh-grammar.js';
import { metresPerUnit } from './bvh-units.js';
import { FormatError } from './format-error.js';
import { addMotion, baseName, type ImportOptions, type Imported } from './imported.js';

/**
 * The way a recorded figure goes: its root as a path with keys.
 *
 * @throws FormatError where the root is not moved, or the file is broken
 */
export function readBvhRoot(text: string, file: string, options: ImportOptions): Imported {
  const recorded = parseBvh(text, file);
  const { joints, motion, step } = recorded;
  const columns = (['Xposition', 'Yposition', 'Zposition'] as const).map((name) =>
    joints[0].channels.indexOf(name),
  );
  if (columns.some((column) => column < 0))
    throw new FormatError(file, 'has a root without positions; expected one that goes somewhere.');
  const scale = metresPerUnit(recorded) * options.scale;
  const places = motion.map((frame) => columns.map((column) => frame[column] * scale) as Vec3);
  const frames = motion.map((_, i) => options.firstFrame + i * step * options.fps);
  const into: Imported = { paths: [], rides: [], notes: [] };
  addMotion(file, `${baseName(file)} ${joints[0].name}`, frames, places, options, into);
  if (into.paths.length === 0)
    throw new FormatError(file, 'has a root that stands still; expected one that goes somewhere.');
  return into;
}
