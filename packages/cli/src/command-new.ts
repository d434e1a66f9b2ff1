import { copyFile } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import { newHitch, newShot, writeShotText } from '@fleet-rail/core';
import { readModel, readPaths } from '@fleet-rail/core/formats';
import { counted } from './counted.js';
import { readBytes, writeWhole } from './files.js';
import { UsageError, type Arguments } from './options.js';

export const NEW_OPTIONS = ['path', 'model', 'fps', 'frames', 'out', 'name', 'scale'];

/** How near points are fitted where a file has more than a path can hold, metres. */
const FIT = 0.01;

/** `ride new`: a model, steady, once along a path, facing it; on time where the file says when to be where. */
export async function commandNew(args: Arguments): Promise<string> {
  if (args.files.length > 0) throw new UsageError(`found "${args.files[0]}"; expected only options`);
  const pathFile = args.required('path');
  const modelFile = args.required('model');
  const out = args.required('out');
  const frames = args.number('frames', 240);
  const scale = args.number('scale', 1);
  if (!Number.isInteger(frames) || frames < 1) {
    throw new UsageError(`--frames: found ${frames}; expected a whole number from 1`);
  }
  if (!(scale > 0)) throw new UsageError(`--scale: found ${scale}; expected metres per unit, above 0`);
  const fps = args.number('fps', 24);
  const { paths, rides } = await readPaths(await readBytes(pathFile), basename(pathFile), {
    scale,
    fps,
    firstFrame: 1,
    tolerance: FIT,
  });
  const keys = rides.find((ride) => ride.pathId === paths[0].id)?.keys;
  const { facts } = await readModel(await readBytes(modelFile), basename(modelFile));
  const name = args.option('name') ?? basename(out).replace(/(\.shot)?\.json$/i, '');
  const range = { first: 1, last: frames };
  const plain = newHitch(paths[0].id, range);
  const { forward, up, chassis } = facts.facing;
  const steady = { ...plain, facing: { ...plain.facing, forward, up } };
  const modelName = basename(modelFile).replace(/\.(glb|gltf)$/i, '');
  const shot = newShot({
    name,
    fps,
    range,
    paths,
    models: [{ id: 'model', name: modelName, source: { file: basename(modelFile) } }],
    riders: [
      {
        id: 'r1',
        name: modelName,
        kind: 'vehicle',
        model: 'model',
        badge: 'R1',
        chassis,
        hitch: keys ? { ...steady, pace: { ...steady.pace, unit: 'metres', keys } } : steady,
      },
    ],
  });
  // Models are looked for beside the shot file, so that is where this one must be.
  const beside = join(dirname(out), basename(modelFile));
  if (resolve(beside) !== resolve(modelFile)) await copyBeside(modelFile, beside);
  await writeWhole(out, writeShotText(shot));
  return `${out}: ${counted(paths.length, 'path')}, 1 rider on "${paths[0].name}", ${counted(frames, 'frame')} at ${shot.fps} fps`;
}

async function copyBeside(from: string, to: string): Promise<void> {
  const there = await readBytes(to).catch(() => null);
  if (there !== null && Buffer.compare(there, await readBytes(from)) !== 0) {
    throw new UsageError(`${to}: another file of this name is beside the shot; expected it to be free`);
  }
  try {
    await copyFile(from, to);
  } catch (error) {
    throw new UsageError(`${to}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}
