import { mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { modelsInPlay, parseShotText, type Shot } from '@fleet-rail/core';
import { FormatError, neededBy, takeModel, type GivenFile, type TakenModel } from '@fleet-rail/core/formats';
import { reasonOf } from './file-errors.js';
import { UsageError } from './options.js';

/** The bytes of a file, or a {@link UsageError} that names it. */
export async function readBytes(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    throw new UsageError(`${path}: cannot be read: ${reasonOf(error)}`);
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
  content: string | Uint8Array | Iterable<string | Uint8Array>,
): Promise<void> {
  const partial = join(dirname(path), `.${basename(path)}.${process.pid}.part`);
  try {
    await writeFile(partial, content);
    await rename(partial, path);
  } catch (error) {
    await rm(partial, { force: true }).catch(() => undefined);
    throw (error as NodeJS.ErrnoException).code !== undefined
      ? new UsageError(`${path}: cannot be written: ${reasonOf(error)}`)
      : error;
  }
}

/** A folder that may be there already. */
export async function makeFolder(path: string): Promise<void> {
  try {
    await mkdir(path, { recursive: true });
  } catch (error) {
    throw new UsageError(`${path}: cannot be made: ${reasonOf(error)}`);
  }
}

/** A glTF document that was read. */
export type ModelDocument = TakenModel['document'];

/** A model's file and the files that it names, as far as they exist: a missing one is reported when it is read. */
export async function readModelFiles(path: string): Promise<GivenFile[]> {
  const main = { name: basename(path), bytes: await readBytes(path) };
  const files: GivenFile[] = [main];
  // Those that a file names may name others.
  for (const file of files)
    for (const named of await neededBy(file)) {
      const name = plainUri(named);
      if (files.some((other) => other.name === name)) continue;
      const bytes = await readFile(join(dirname(path), name)).catch(() => null);
      if (bytes) files.push({ name, bytes });
    }
  return files;
}

/** The files beside a model that it names, and that those name; none where it cannot be read. */
export async function namedFiles(path: string): Promise<string[]> {
  if (!(await stat(path).catch(() => null))?.isFile()) return [];
  try {
    return (await readModelFiles(path)).slice(1).map(({ name }) => name);
  } catch {
    return [];
  }
}

/** A name in a URI; one with a wrong encoding is used as it is, and reported when it is read. */
function plainUri(uri: string): string {
  try {
    return decodeURIComponent(uri);
  } catch {
    return uri;
  }
}

/** The glTF documents of the models of riders and ground, found beside the shot file. */
export async function readModels(shot: Shot, shotFile: string): Promise<Map<string, ModelDocument>> {
  const documents = new Map<string, ModelDocument>();
  for (const [id, path] of modelFiles(shot, shotFile, modelsInPlay(shot)))
    documents.set(id, (await takeModel(await readModelFiles(path))).document);
  return documents;
}

/** The same of all that a shot is checked against; which of them are not there, or cannot be read. */
export async function readModelsThatAre(
  shot: Shot,
  shotFile: string,
): Promise<{ models: Map<string, ModelDocument>; missing: Set<string> }> {
  const models = new Map<string, ModelDocument>();
  const missing = new Set<string>();
  const needed = new Set([...modelsInPlay(shot), shot.ground.model ?? '']);
  for (const [id, path] of modelFiles(shot, shotFile, needed)) {
    try {
      models.set(id, (await takeModel(await readModelFiles(path))).document);
    } catch (error) {
      if (!(error instanceof UsageError || error instanceof FormatError)) throw error;
      missing.add(id);
    }
  }
  return { models, missing };
}

/** By model where its file is. */
export function modelFiles(shot: Shot, shotFile: string, needed: ReadonlySet<string>): [string, string][] {
  return shot.models.flatMap((model, i): [string, string][] => {
    if (!needed.has(model.id)) return [];
    const { file } = model.source;
    if (file === undefined) {
      throw new UsageError(
        `models[${i}].source: found a model kept by the server; expected { "file": … } beside ${shotFile}`,
      );
    }
    return [[model.id, join(dirname(shotFile), file)]];
  });
}
