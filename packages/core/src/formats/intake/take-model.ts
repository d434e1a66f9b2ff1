import type { Document, GLTF, JSONDocument } from '@gltf-transform/core';
import { FormatError } from '../format-error.js';
import {
  checkModel,
  describeModel,
  gltfIo,
  jsonOf,
  readJson,
  readModelDocument,
  type ModelFacts,
} from '../model-read.js';
import { restoreNames } from '../node-names.js';
import { PACKING, isPacked } from './decoders.js';
import { endingOf, finder, modelAmong, unpacked, type GivenFile } from './given-files.js';
import { namedIn } from './named-in.js';
import { placeModel, type ModelPlacing } from './placed-model.js';

/** A model taken in from one file or several. */
export interface TakenModel {
  readonly document: Document;
  /** The name it is kept under. */
  readonly fileName: string;
  /** The one file it is kept as, where that is not the very file that was given. */
  readonly glb: Uint8Array | null;
}

/**
 * A model from the files it comes as: a `.glb` or `.gltf` with the buffers and pictures it names, packed or not; a mesh as `.obj`
 * with its materials, `.stl` or `.ply`; a figure's motion as `.bvh`; any of them in a zip.
 *
 * @throws FormatError where it is broken, of another kind, or something it needs is not there
 */
export async function takeModel(given: readonly GivenFile[]): Promise<TakenModel> {
  const files = unpacked(given);
  const whole = given.length === 1 ? given[0].name : `${given.length} files`;
  const main = modelAmong(files, whole);
  const alone = given.length === 1 && given[0] === main;
  const name = main.name.replace(/^.*[\\/]/, '');
  const kept = async (document: Document, as: Uint8Array | null): Promise<TakenModel> => ({
    document,
    fileName: as === null ? name : name.replace(/\.[^.]*$/, '') + '.glb',
    glb: as,
  });
  const ending = endingOf(main.name);
  if (ending === '.obj' || ending === '.stl' || ending === '.ply') {
    const { meshModel } = await import('./mesh-model.js');
    const made = await meshModel(main, finder(files, main));
    checkModel(made, name);
    return kept(made, await bytesOf(made));
  }
  const json = await jsonOf(main.bytes, name);
  if (json === null) {
    const figure = await readModelDocument(main.bytes, name);
    return kept(figure, await bytesOf(figure));
  }
  const joined = bringTogether(json, finder(files, main), name);
  const document = await readJson(json, name, PACKING);
  const as = joined || isPacked(json) || !alone ? await bytesOf(document) : null;
  return kept(document, as);
}

/** The same, with what is found in it. */
export async function takeModelWithFacts(
  given: readonly GivenFile[],
): Promise<TakenModel & { facts: ModelFacts }> {
  const taken = await takeModel(given);
  return { ...taken, facts: describeModel(taken.document, taken.fileName) };
}

/** The same model placed otherwise, with what is found in it then. */
export async function placedModel(
  given: GivenFile,
  placing: ModelPlacing,
): Promise<TakenModel & { facts: ModelFacts }> {
  const { document, fileName } = await takeModel([given]);
  placeModel(document, placing);
  const glb = await bytesOf(document);
  const name = fileName.replace(/\.[^.]*$/, '') + '.glb';
  const again = await takeModelWithFacts([{ name, bytes: glb }]);
  return { ...again, glb };
}

/** The names of other files that a model, or a file it needs, names. */
export async function neededBy(file: GivenFile): Promise<string[]> {
  const ending = endingOf(file.name);
  if (ending !== '.glb' && ending !== '.gltf') return namedIn(file);
  const json = await jsonOf(file.bytes, file.name);
  return json ? namedOutside(json) : [];
}

function namedOutside({ json }: JSONDocument): string[] {
  return [...(json.buffers ?? []), ...(json.images ?? [])].flatMap(({ uri }: { uri?: string }) =>
    uri === undefined || uri.startsWith('data:') ? [] : [uri],
  );
}

/** One file of it, in which nodes are called as they were. */
async function bytesOf(document: Document): Promise<Uint8Array> {
  const copy = await gltfIo().readBinary(await gltfIo().writeBinary(document));
  restoreNames(copy);
  return gltfIo().writeBinary(copy);
}

/**
 * Puts the files that a description names beside it.
 *
 * @returns whether it named any
 */
function bringTogether(given: JSONDocument, find: (uri: string) => GivenFile | null, file: string): boolean {
  const { json, resources } = given;
  const named = namedOutside(given);
  const missing = new Set<string>();
  for (const uri of named) {
    const found = find(uri);
    if (found) resources[uri] = found.bytes as Uint8Array<ArrayBuffer>;
    else missing.add(uri);
  }
  const buffers = new Set((json.buffers ?? []).map(({ uri }: GLTF.IBuffer) => uri));
  const [needed, pictures] = [[...missing].filter((uri) => buffers.has(uri)), missing];
  if (missing.size > 0) {
    const shown = (needed.length > 0 ? needed : [...pictures])
      .slice(0, 3)
      .map((uri) => `"${uri.slice(0, 60)}"`);
    const more = missing.size > shown.length ? ` and ${missing.size - shown.length} more` : '';
    throw new FormatError(
      file,
      `needs other files (${shown.join(', ')}${more}); expected them to be given together with it, as files, a folder or a zip.`,
    );
  }
  return named.length > 0;
}
