import { evaluateShot } from '@fleet-rail/core';
import { assetsOf, writeDressingGlb } from '@fleet-rail/core/formats';
import { counted } from './counted.js';
import { readModels, readShot } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs } from './outputs.js';

export const LAY_OPTIONS = ['out', 'only'];
export const LAY_FLAGS = [FORCE];

/** `ride lay`: the dressing of a shot's paths, alone, as GLB. */
export async function commandLay(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride lay a.shot.json --out rails.glb`,
    );
  }
  const [file] = args.files;
  const out = args.required('out');
  if (!/\.glb$/i.test(out)) throw new UsageError(`--out: found "${out}"; expected a name ending in .glb`);
  const shot = await readShot(file);
  const outputs = await Outputs.ofShot(args, shot, file);
  await outputs.check(out);
  const only = args.option('only');
  const models = await readModels(shot, file);
  const all = evaluateShot(shot, await assetsOf(shot, models)).dressings();
  const things = all.filter(({ laid }) => only === undefined || laid.id === only || laid.name === only);
  if (things.length === 0) {
    const known = all.map(({ laid }) => laid.name).join(', ');
    const found = only === undefined ? `${file}: found nothing laid` : `--only: found "${only}"`;
    throw new UsageError(
      `${found}; expected ${known ? `one of: ${known}` : 'something that is laid along a path'}`,
    );
  }
  await outputs.write(out, await writeDressingGlb(shot.name, things, models));
  const pieces = things.reduce((sum, thing) => sum + (thing.pieces?.count ?? 0), 0);
  const profiles = things.filter(({ swept }) => swept !== null).length;
  return `${out}: ${counted(pieces, 'piece')}, ${counted(profiles, 'profile')}`;
}
