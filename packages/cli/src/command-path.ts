import { PathError, compiledPathOf } from '@fleet-rail/core';
import { PATH_KINDS, writePath, type PathKind } from '@fleet-rail/core/formats';
import { counted, sizeInWords } from './counted.js';
import { readShot } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs } from './outputs.js';

export const PATH_OPTIONS = ['path', 'out', 'within'];
export const PATH_FLAGS = [FORCE];

/** The smallest tolerance, metres: points grow with its inverse root, and files are written to a nanometre. */
const FINEST = 1e-6;
/** Size from which on a file is written only with a flag, bytes. */
const LARGE = 20e6;

/** `ride path`: a path of a shot as SVG, OBJ lines, CSV or glTF lines. */
export async function commandPath(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride path a.shot.json --path lane --out lane.svg`,
    );
  }
  const shot = await readShot(args.files[0]);
  const wanted = args.required('path');
  const out = args.required('out');
  const kind = PATH_KINDS.find((one) => out.toLowerCase().endsWith(`.${one}`));
  if (kind === undefined)
    throw new UsageError(`--out: found "${out}"; expected a name ending in .${PATH_KINDS.join(', .')}`);
  const within = args.number('within', 0.001);
  if (!(within >= FINEST)) throw new UsageError(`--within: found ${within}; expected metres from ${FINEST}`);
  const path = shot.paths.find(({ id, name }) => id === wanted || name === wanted);
  if (path === undefined) {
    const known = shot.paths.map(({ id }) => id).join(', ') || 'none, there is no path';
    throw new UsageError(`--path: found "${wanted}"; expected one of ${known}`);
  }
  const curve = compiledPathOf(path);
  if (curve instanceof PathError) throw new UsageError(`${path.id}: ${curve.message}`);
  const outputs = await Outputs.ofShot(args, shot, args.files[0]);
  await outputs.check(out);
  const { points, bytes } = await writePath(path, kind satisfies PathKind, within);
  const size = `${counted(points, 'point')}, ${sizeInWords(bytes.length)}`;
  if (bytes.length > LARGE && !args.flag(FORCE))
    throw new UsageError(
      `--within: ${within} m would make ${size}; expected at most ${sizeInWords(LARGE)}, or --${FORCE} to write it`,
    );
  await outputs.write(out, bytes);
  return `${out}: ${path.name}, ${curve.length.toFixed(3)} m, ${size}`;
}
