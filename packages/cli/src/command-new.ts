import { basename, dirname, join, resolve } from 'node:path';
import {
  KINDS,
  PathError,
  compiledPathOf,
  firstAnchor,
  newAttachment,
  newShot,
  withFoundGait,
  withFoundRig,
  withRider,
  writeShotText,
  type Rider,
  type Shot,
  type ShotPath,
} from '@fleet-rail/core';
import { readPaths, takeModelWithFacts, type ModelFacts } from '@fleet-rail/core/formats';
import { counted } from './counted.js';
import { readBytes, readModelFiles, writeWhole } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs, modelInputs } from './outputs.js';

export const NEW_OPTIONS = [
  'path',
  'pick',
  'length',
  'scale',
  'model',
  'kind',
  'fps',
  'frames',
  'out',
  'name',
];
export const NEW_FLAGS = [FORCE, 'rig'];

/** How near points are fitted where a file has more than a path can hold, metres. */
const FIT = 0.01;

/** `ride new`: a model, steady, once along a path, facing it; on time where the file says when to be where. */
export async function commandNew(args: Arguments): Promise<string> {
  if (args.files.length > 0) throw new UsageError(`found "${args.files[0]}"; expected only options`);
  const modelFile = args.required('model');
  const out = args.required('out');
  const frames = args.number('frames', 240);
  if (!Number.isInteger(frames) || frames < 1) {
    throw new UsageError(`--frames: found ${frames}; expected a whole number from 1`);
  }
  const kind = kindOf(args.option('kind'));
  const fps = args.number('fps', 24);
  const outputs = await Outputs.of(
    args,
    out,
    new Map([[args.required('path'), 'the file of the path'], ...(await modelInputs(modelFile))]),
  );
  await outputs.check(out);
  const { path, paths, keys } = await pathsOf(args, fps);
  const taken = await takeModelWithFacts(await readModelFiles(modelFile));
  const { facts } = taken;
  const name = args.option('name') ?? basename(out).replace(/(\.shot)?\.json$/i, '');
  const range = { first: 1, last: frames };
  const plain = newAttachment(path.id, range);
  const { forward, up, chassis } = facts.facing;
  const steady = { ...plain, facing: { ...plain.facing, forward, up } };
  const kept = taken.glb === null ? basename(modelFile) : taken.fileName;
  const modelName = kept.replace(/\.(glb|gltf)$/i, '');
  const shot = newShot({
    name,
    fps,
    range,
    paths,
    ground: { level: 0 },
    models: [{ id: 'model', name: modelName, source: { file: kept } }],
    riders: [
      {
        id: 'r1',
        name: modelName,
        kind: kind ?? 'vehicle',
        model: 'model',
        badge: 'R1',
        chassis,
        attachment: keys ? { ...steady, pace: { ...steady.pace, unit: 'metres', keys } } : steady,
      },
    ],
  });
  const rigged = args.flag('rig') ? withRig(shot, facts, kind) : shot;
  // Models are looked for beside the shot file, so that is where this one must be.
  const beside = join(dirname(out), kept);
  if (taken.glb !== null) await putBeside(taken.glb, beside);
  else if (resolve(beside) !== resolve(modelFile)) await putBeside(await readBytes(modelFile), beside);
  await outputs.write(out, writeShotText(rigged));
  return `${out}: ${counted(paths.length, 'path')}, 1 rider on "${path.name}", ${counted(frames, 'frame')} at ${shot.fps} fps`;
}

/** The paths of a file, or the one that is picked, as long as is asked. */
async function pathsOf(args: Arguments, fps: number) {
  const pathFile = args.required('path');
  const scale = args.number('scale', 1);
  if (!(scale > 0)) throw new UsageError(`--scale: found ${scale}; expected metres per unit, above 0`);
  const length = args.option('length') === undefined ? null : args.number('length', 0);
  if (length !== null && !(length > 0))
    throw new UsageError(`--length: found ${length}; expected metres, above 0`);
  const bytes = await readBytes(pathFile);
  const read = (metres: number) =>
    readPaths(bytes, basename(pathFile), { scale: metres, fps, firstFrame: 1, tolerance: FIT });
  let imported = await read(scale);
  let index = pickedOf(args.option('pick'), imported.paths);
  if (length !== null) {
    const curve = compiledPathOf(imported.paths[index]);
    if (curve instanceof PathError) throw new UsageError(`${pathFile}: ${curve.message}`);
    imported = await read((scale * length) / curve.length);
    index = pickedOf(args.option('pick'), imported.paths);
  }
  const path = imported.paths[index];
  const keys = imported.rides.find((ride) => ride.pathId === path.id)?.keys;
  return { path, paths: args.option('pick') === undefined ? imported.paths : [path], keys };
}

/** Which path is meant by an id, a name or a number from 1 on. */
function pickedOf(pick: string | undefined, paths: readonly ShotPath[]): number {
  if (pick === undefined) return 0;
  const named = paths.findIndex(({ id, name }) => id === pick || name === pick);
  if (named >= 0) return named;
  const number = Number(pick);
  if (Number.isInteger(number) && number >= 1 && number <= paths.length) return number - 1;
  const known = paths.slice(0, 8).map(({ name }) => name);
  throw new UsageError(
    `--pick: found "${pick}"; expected a number from 1 to ${paths.length}, or one of ${known.join(', ')}${paths.length > known.length ? ' …' : ''}`,
  );
}

function kindOf(kind: string | undefined): Rider['kind'] | null {
  if (kind === undefined) return null;
  const known = KINDS.find((one) => one === kind);
  if (known) return known;
  throw new UsageError(`--kind: found "${kind}"; expected one of ${KINDS.join(', ')}`);
}

/** With what was found in the model: its wheels, or the walk that takes it furthest. */
function withRig(shot: Shot, { rig, gaits }: ModelFacts, kind: Rider['kind'] | null): Shot {
  const walk = gaits.reduce<ModelFacts['gaits'][number] | null>(
    (best, gait) => (gait.stride > (best?.stride ?? 0) ? gait : best),
    null,
  );
  return withRider(shot, 'r1', (rider) => {
    const rigged = withFoundRig(rider, rig);
    const { attachment } = rigged;
    const rolling = { ...rigged, attachment: attachment && { ...attachment, anchor: firstAnchor(rigged) } };
    const walks = walk !== null && rig.wheels.length === 0;
    return walks ? withFoundGait({ ...rolling, kind: kind ?? 'character' }, walk.clip, gaits) : rolling;
  });
}

async function putBeside(bytes: Uint8Array, to: string): Promise<void> {
  const there = await readBytes(to).catch(() => null);
  if (there !== null && Buffer.compare(there, bytes) !== 0) {
    throw new UsageError(`${to}: another file of this name is beside the shot; expected it to be free`);
  }
  if (there === null) await writeWhole(to, bytes);
}
