import { LIMITS, evaluateShot, frameCount, sampleShot, type EvaluatedShot } from '@fleet-rail/core';
import { needsAssets, assetsOf, csvParts, writeGlb } from '@fleet-rail/core/formats';
import { counted } from './counted.js';
import { readModels, readShot, writeWhole } from './files.js';
import { UsageError, type Arguments } from './options.js';

export const BAKE_OPTIONS = ['out', 'within'];

/** `ride bake`: the motion of a shot as CSV or GLB. */
export async function commandBake(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride bake a.shot.json --out a.glb`,
    );
  }
  const [file] = args.files;
  const out = args.required('out');
  const kind = /\.(csv|glb)$/i.exec(out)?.[1].toLowerCase();
  if (kind === undefined)
    throw new UsageError(`--out: found "${out}"; expected a name ending in .csv or .glb`);
  const shot = await readShot(file);
  const within = args.number('within', 0);
  if (!(within >= 0))
    throw new UsageError(`--within: found ${within}; expected metres or radians, 0 or more`);
  // A CSV of riders alone needs no model beside it.
  const models = kind === 'glb' || needsAssets(shot) ? await readModels(shot, file) : new Map();
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const csv = kind === 'csv';
  await writeWhole(out, csv ? csvParts(evaluated) : await writeGlb(sampleShot(evaluated), models, within));
  return `${out}: ${counted(shot.riders.length, 'rider')}, ${counted(frameCount(shot), 'frame')}${sprayed(evaluated)}`;
}

/** What is said of particles: how many there are, and where there would be more. */
function sprayed({ shot, spray }: EvaluatedShot): string {
  const sprays = shot.riders.flatMap((rider) => spray(rider) ?? []);
  if (sprays.length === 0) return '';
  const count = sprays.reduce((sum, one) => sum + one.count, 0);
  const limited = sprays.some((one) => one.limited);
  return `, ${counted(count, 'particle')}${limited ? ` (no more than ${LIMITS.particles} of a rider)` : ''}`;
}
