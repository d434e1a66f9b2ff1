import { basename, dirname, join } from 'node:path';
import {
  LIMITS,
  evaluateShot,
  needsAssets,
  sampleShot,
  type EvaluatedShot,
  type SampleChoice,
  type Shot,
} from '@fleet-rail/core';
import {
  assetsOf,
  csvParts,
  csvTables,
  packUsdz,
  textBlocks,
  writeGlb,
  writeUsd,
} from '@fleet-rail/core/formats';
import { counted } from './counted.js';
import { readModels, readShot, type ModelDocument } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs, outputFolder } from './outputs.js';

export const BAKE_OPTIONS = ['out', 'within', 'turns', 'riders', 'from', 'to', 'clips'];
/** The last two are of a CSV alone. */
export const BAKE_FLAGS = [FORCE, 'closing-key', 'facts', 'tables'];

/** `ride bake`: the motion of a shot as CSV, GLB or USD. */
export async function commandBake(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride bake a.shot.json --out a.glb`,
    );
  }
  const [file] = args.files;
  const out = args.required('out');
  const kind = /\.(csv|glb|usda|usdz)$/i.exec(out)?.[1].toLowerCase();
  if (kind === undefined)
    throw new UsageError(`--out: found "${out}"; expected a name ending in .csv, .glb, .usda or .usdz`);
  const within = args.number('within', 0);
  if (!(within >= 0)) throw new UsageError(`--within: found ${within}; expected metres, 0 or more`);
  const turns = args.number('turns', (within * 180) / Math.PI);
  if (!(turns >= 0)) throw new UsageError(`--turns: found ${turns}; expected degrees, 0 or more`);
  const ofCsv = BAKE_FLAGS.slice(-2);
  const strange = kind === 'csv' ? undefined : ofCsv.find((flag) => args.flag(flag));
  if (strange !== undefined)
    throw new UsageError(`--${strange}: found a .${kind} to write; expected a .csv, which alone has it`);
  const clips = args.option('clips') ?? 'keep';
  if (clips !== 'keep' && clips !== 'drop')
    throw new UsageError(`--clips: found "${clips}"; expected keep or drop`);
  const shot = await readShot(file);
  const outputs = await Outputs.ofShot(args, shot, file);
  await outputs.check(out);
  const choice = choiceOf(args, shot);
  // A CSV of riders alone needs no model beside it.
  const models = kind !== 'csv' || needsAssets(shot) ? await readModels(shot, file) : new Map();
  const evaluated = evaluateShot(shot, await assetsOf(shot, models));
  const told = { within, turns: (turns * Math.PI) / 180 };
  if (kind === 'csv') {
    const tables = args.flag('tables') ? csvTables(evaluated, choice) : [];
    const placeOf = (name: string) => out.replace(/\.csv$/i, `-${name}`);
    await outputs.check(...tables.map(({ name }) => placeOf(name)));
    await outputs.write(out, textBlocks(csvParts(evaluated, { ...choice, facts: args.flag('facts') })));
    for (const { name, text } of tables) await outputs.write(placeOf(name), text);
  } else if (kind === 'glb')
    await outputs.write(
      out,
      await writeGlb(sampleShot(evaluated, { ...choice, between: true }), models, { ...told, clips }),
    );
  else await writeUsdFiles(outputs, out, kind, evaluated, models, choice, told);
  const { riders, frames } = sizeOf(evaluated, choice);
  return `${out}: ${counted(riders, 'rider')}, ${counted(frames, 'frame')}${sprayed(evaluated, choice)}`;
}

/** The layer, and its pictures in a folder beside it or all in one package. */
async function writeUsdFiles(
  outputs: Outputs,
  out: string,
  kind: string,
  evaluated: EvaluatedShot,
  models: ReadonlyMap<string, ModelDocument>,
  choice: SampleChoice,
  told: { within: number; turns: number },
): Promise<void> {
  const base = basename(out).replace(/\.\w+$/, '');
  const folder = `${base}-pictures`;
  const files = writeUsd(sampleShot(evaluated, { ...choice, between: true }), models, { ...told, folder });
  if (kind === 'usdz') return outputs.write(out, packUsdz(files, `${base}.usda`));
  if (files.pictures.length > 0) await outputFolder(join(dirname(out), folder));
  await outputs.check(...files.pictures.map(({ name }) => join(dirname(out), name)));
  for (const { name, bytes } of files.pictures) await outputs.write(join(dirname(out), name), bytes);
  await outputs.write(out, files.layer);
}

/** Riders and frames of the bake. */
function choiceOf(args: Arguments, shot: Shot): SampleChoice {
  const { first, last } = shot.range;
  const frame = (name: 'from' | 'to', fallback: number) => {
    const value = args.number(name, fallback);
    if (Number.isInteger(value) && value >= first && value <= last) return value;
    throw new UsageError(`--${name}: found ${value}; expected a whole frame from ${first} to ${last}`);
  };
  const [from, to] = [frame('from', first), frame('to', last)];
  if (from > to) throw new UsageError(`--from: found ${from}, which is after ${to}; expected a frame before`);
  return {
    riders: ridersOf(args.option('riders'), shot),
    first: from,
    last: to,
    closing: args.flag('closing-key'),
  };
}

/** Riders by badge, id or name. */
function ridersOf(list: string | undefined, { riders }: Shot): Set<string> | null {
  if (list === undefined) return null;
  const found = list.split(',').map((entry) => {
    const wanted = entry.trim();
    const rider = riders.find(({ id, badge, name }) => [badge, id, name].includes(wanted));
    if (rider) return rider.id;
    const badges = riders.slice(0, 12).map(({ badge }) => badge);
    const more = riders.length > badges.length ? ' …' : '';
    throw new UsageError(`--riders: found "${wanted}"; expected badges among ${badges.join(', ')}${more}`);
  });
  return new Set(found);
}

function sizeOf({ shot }: EvaluatedShot, { riders, first, last, closing }: SampleChoice) {
  return {
    riders: riders ? riders.size : shot.riders.length,
    frames: (last ?? shot.range.last) - (first ?? shot.range.first) + 1 + (closing ? 1 : 0),
  };
}

/** The line about particles: how many there are, and where there would be more. */
function sprayed({ shot, spray }: EvaluatedShot, { riders }: SampleChoice): string {
  const chosen = shot.riders.filter(({ id }) => riders?.has(id) ?? true);
  const sprays = chosen.flatMap((rider) => spray(rider) ?? []);
  if (sprays.length === 0) return '';
  const count = sprays.reduce((sum, one) => sum + one.count, 0);
  const limited = sprays.some((one) => one.limited);
  return `, ${counted(count, 'particle')}${limited ? ` (no more than ${LIMITS.particles} of a rider)` : ''}`;
}
