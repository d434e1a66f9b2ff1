import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { modelsInPlay, parseShotText, type Shot } from '@fleet-rail/core';
import { readModelDocument } from '@fleet-rail/core/formats';
import { UsageError } from './options.js';

/** The bytes of a file, or a {@link UsageError} that names it. */
export async function readBytes(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    throw new UsageError(`${path}: cannot be read (${(error as NodeJS.ErrnoException).code})`);
  }
}

/** The text of a file. */
export async function readText(path: string): Promise<string> {
  return new TextDecoder().decode(await readBytes(path));
}

/** The shot in a file. */
export async function readShot(path: string): Promise<Shot> {
  return parseShotText(await readText(path));
}

/** Writes a file whole or not at all. */
export async function writeWhole(
  path: string,
  content: string | Uint8Array | Iterable<string>,
): Promise<void> {
  const partial = join(dirname(path), `.${basename(path)}.${process.pid}.part`);
  try {
    await writeFile(partial, content);
    await rename(partial, path);
  } catch (error) {
    await rm(partial, { force: true });
    throw new UsageError(`${path}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}

/** The glTF documents of the models that riders wear and stand on, found beside the shot file. */
export async function readModels(
  shot: Shot,
  shotFile: string,
): Promise<Map<string, Awaited<ReturnType<typeof readModelDocument>>>> {
  const documents = new Map();
  const needed = modelsInPlay(shot);
  for (const [i, model] of shot.models.entries()) {
    if (!needed.has(model.id)) continue;
    const { file } = model.source;
    if (file === undefined) {
      throw new UsageError(
        `models[${i}].source: found a model kept by the server; expected { "file": … } beside ${shotFile}`,
      );
    }
    const path = join(dirname(shotFile), file);
    documents.set(model.id, await readModelDocument(await readBytes(path), path));
  }
  return documents;
}
