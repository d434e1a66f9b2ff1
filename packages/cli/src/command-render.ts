import { join } from 'node:path';
import {
  PLAIN_WISH,
  evaluateShot,
  fileNameOf,
  firstEye,
  fourDigits,
  modelsInPlay,
  plannedPictures,
  type PictureFile,
  type PictureWish,
  type Shot,
} from '@fleet-rail/core';
import { assetsOf } from '@fleet-rail/core/formats';
import { unzipSync } from 'fflate';
import { counted } from './counted.js';
import { modelFiles, readModelFiles, readModels, readShot } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs, outputFolder } from './outputs.js';
import { RenderServer } from './render-server.js';

export const RENDER_OPTIONS = [
  'out',
  'size',
  'camera',
  'from',
  'to',
  'every',
  'quality',
  'times',
  'workers',
  'browser',
];
export const RENDER_FLAGS = [FORCE, 'cuts', 'helpers', 'night'];

const MOST_WORKERS = 16;

/** `ride render`: pictures or a film of a shot, drawn by the desk's own stage in headless browsers. */
export async function commandRender(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride render a.shot.json --out a.webm`,
    );
  }
  const [file] = args.files;
  const out = args.required('out');
  const kind = kindOf(out);
  const shot = await readShot(file);
  const outputs = await Outputs.ofShot(args, shot, file);
  const wish = wishOf(args, kind, shot);
  const range = rangeOf(args, shot);
  const workers = whole(args, 'workers', 1, 1, MOST_WORKERS);
  const evaluated = evaluateShot(shot, await assetsOf(shot, await readModels(shot, file)));
  const all = firstEye(shot, wish.width / wish.height);
  const pictures = plannedPictures(wish, {
    frame: range.first,
    range,
    cuts: evaluated.cuts(),
    cameras: shot.riders.filter(({ camera }) => camera !== null).map(({ id }) => id),
    view: () => all,
  });
  if (kind === 'png') await outputFolder(out);
  const places = kind === 'png' ? pictures.map(({ frame }) => join(out, pictureName(frame))) : [out];
  await outputs.check(...places);
  const server = await RenderServer.start(workers, args.option('browser') ?? null);
  const interrupt = () => void server.stop().finally(() => process.exit(1));
  process.once('SIGINT', interrupt);
  try {
    const kept = await withModels(shot, file, server);
    const theme = args.flag('night') ? 'night' : 'day';
    const job = { shot: kept, wish, pictures, theme, board: null } as const;
    const id = await server.addJob({ ...job, fileName: fileNameOf(job) });
    const content = await server.done(id, ({ drawn, pictures: of }) => tell(`picture ${drawn} of ${of}`));
    tell('');
    await write(outputs, out, kind, content, pictures[0].frame);
  } finally {
    process.off('SIGINT', interrupt);
    await server.stop();
  }
  const size = `${wish.width}x${wish.height}`;
  return `${out}: ${counted(pictures.length, 'picture')}, ${size}`;
}

/** A progress line that is overwritten, on a terminal. */
function tell(line: string): void {
  if (process.stderr.isTTY) process.stderr.write(`\r${line.padEnd(40)}${line === '' ? '\r' : ''}`);
}

function kindOf(out: string): PictureFile {
  if (/[\\/]$/.test(out)) return 'png';
  const kind = /\.(webm|mp4)$/i.exec(out)?.[1].toLowerCase();
  if (kind === undefined)
    throw new UsageError(
      `--out: found "${out}"; expected a name ending in .webm or .mp4, or a folder ending in /`,
    );
  return kind as PictureFile;
}

function wishOf(args: Arguments, file: PictureFile, shot: Shot): PictureWish {
  const size = args.option('size') ?? '1280x720';
  const [, width, height] = (/^(\d+)x(\d+)$/.exec(size) ?? []).map(Number);
  const fits = (side: number) => side >= 16 && side <= 8192 && (file === 'png' || side % 2 === 0);
  if (!fits(width) || !fits(height))
    throw new UsageError(
      `--size: found "${size}"; expected two ${file === 'png' ? '' : 'even '}numbers from 16 to 8192, as in 1280x720`,
    );
  const quality = args.number('quality', PLAIN_WISH.quality);
  if (quality < 0 || quality > 1) throw new UsageError(`--quality: found ${quality}; expected 0 to 1`);
  return {
    ...PLAIN_WISH,
    frames: 'range',
    every: whole(args, 'every', 1, 1, 1e6),
    eye: eyeOf(args, shot),
    width,
    height,
    times: whole(args, 'times', 1, 1, 4),
    file,
    quality,
    helpers: args.flag('helpers'),
  };
}

/** Through a camera by its badge or name, or the cuts; else with the desk's first view. */
function eyeOf(args: Arguments, { riders }: Shot): PictureWish['eye'] {
  const wanted = args.option('camera');
  const cameras = riders.filter(({ camera }) => camera !== null);
  const names = cameras.map(({ badge }) => badge).join(', ') || 'none, this shot has no camera';
  if (args.flag('cuts')) {
    if (wanted !== undefined) throw new UsageError('--camera: found it beside --cuts; expected one of them');
    if (cameras.length === 0) throw new UsageError('--cuts: found no camera in the shot; expected one');
    return 'cuts';
  }
  if (wanted === undefined) return 'view';
  const found = cameras.find(({ badge, name, id }) => [badge, name, id].includes(wanted));
  if (!found) throw new UsageError(`--camera: found "${wanted}"; expected one of ${names}`);
  return { riders: [found.id] };
}

function rangeOf(args: Arguments, { range }: Shot): { first: number; last: number } {
  const { first, last } = range;
  const from = whole(args, 'from', first, first, last);
  return { first: from, last: whole(args, 'to', last, from, last) };
}

function whole(args: Arguments, name: string, usual: number, least: number, most: number): number {
  const value = args.number(name, usual);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new UsageError(`--${name}: found ${value}; expected a whole number from ${least} to ${most}`);
  return value;
}

/** The shot with all models that are there given to the server. */
async function withModels(shot: Shot, file: string, server: RenderServer): Promise<Shot> {
  const seen = new Set([...modelsInPlay(shot), shot.ground.model ?? '']);
  const assets = new Map<string, string>();
  for (const [id, path] of modelFiles(shot, file, seen))
    assets.set(id, await server.addModel(await readModelFiles(path)));
  const models = shot.models.map((model) => {
    const asset = assets.get(model.id);
    return asset === undefined ? model : { ...model, source: { asset } };
  });
  return { ...shot, models };
}

async function write(
  outputs: Outputs,
  out: string,
  kind: PictureFile,
  content: Uint8Array,
  frame: number,
): Promise<void> {
  if (kind !== 'png') return outputs.write(out, content);
  // One picture is no zip.
  const isPng = content[0] === 0x89;
  const pictures = isPng ? { [pictureName(frame)]: content } : unzipSync(content);
  for (const [picture, bytes] of Object.entries(pictures)) await outputs.write(join(out, picture), bytes);
}

const pictureName = (frame: number): string => `frame-${fourDigits(frame)}.png`;
