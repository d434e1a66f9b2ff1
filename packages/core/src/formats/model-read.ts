import type { Document, Node } from '@gltf-transform/core';
import { GLB_BUFFER, WebIO, type JSONDocument, type GLTF } from '@gltf-transform/core';
import { ALL_EXTENSIONS } from '@gltf-transform/extensions';
import { findFacing, type FoundFacing } from '../vehicle/facing/find-facing.js';
import { likelyUnit, type ModelUnit } from '../vehicle/facing/likely-unit.js';
import { findGait, type FoundGait } from '../character/gait/find-gait.js';
import { partsOf as splitMatrix } from '../character/hierarchy/model-space.js';
import { findRig, type FoundRig, type RigPart } from '../vehicle/wheels/find-rig.js';
import { hierarchyOf } from './hierarchy-read.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { readBvh } from './bvh-read.js';
import { FACTS_VERSION } from './format-facts.js';
import { FormatError } from './format-error.js';
import { checkGltf } from './gltf-check.js';
import { placingOf, type ModelPlacing } from './intake/placed-model.js';
import { giveNames } from './node-names.js';
import {
  everyNode,
  worldOriginOf,
  sceneOf,
  worldNodes,
  worldPositions,
  type WorldNode,
} from './gltf-scene.js';

/** Facts of a model that an animator asks for. */
export interface ModelFacts {
  readonly version: number;
  readonly nodes: readonly string[];
  /** Position of each node's origin in the rest pose, metres. */
  readonly places: readonly Vec3[];
  readonly clips: readonly { readonly name: string; readonly seconds: number }[];
  /** Corners of the rest pose's bounding box, metres. */
  readonly low: Vec3;
  readonly high: Vec3;
  readonly triangles: number;
  /** The unit it is most likely made in, where what was taken for metres looks odd. */
  readonly unit: ModelUnit;
  /** How it was placed after it came. */
  readonly placing: ModelPlacing;
  readonly skinned: boolean;
  /** Which way it seems to face. */
  readonly facing: FoundFacing;
  /** Its wheels, steering and body. */
  readonly rig: FoundRig;
  /** By clip what it is as a gait. */
  readonly gaits: readonly FoundGait[];
  /** By mesh with morph targets its node, their number, and their names if the file has them. */
  readonly morphs: readonly {
    readonly node: string;
    readonly shapes: number;
    readonly names: readonly string[];
  }[];
}

/** A model that was read and checked. */
export interface ReadModel {
  readonly document: Document;
  readonly facts: ModelFacts;
}

/** Packed meshes are unpacked at intake; a kept model has none. */
const UNREADABLE = new Set(['KHR_draco_mesh_compression', 'EXT_meshopt_compression']);
const GLB_MAGIC = 0x46546c67;

/** A reader and writer of glTF 2.0 with the published extensions. */
export function gltfIo(): WebIO {
  return new WebIO().registerExtensions(ALL_EXTENSIONS);
}

/**
 * A model from the bytes of a `.glb`, of a `.gltf` with everything inside it, or of a `.bvh`.
 *
 * @param file the file's name, for messages
 * @throws FormatError where the file is broken, of another kind, or needs other files
 */
export async function readModel(bytes: Uint8Array, file: string): Promise<ReadModel> {
  const document = await readModelDocument(bytes, file);
  return { document, facts: describeModel(document, file) };
}

/** Facts found in a model that was read. */
export function describeModel(document: Document, file: string): ModelFacts {
  return readable(file, () => factsOf(document));
}

/**
 * The same without what is found in it, for who only shows or plays it.
 *
 * @throws FormatError as {@link readModel}
 */
export async function readModelDocument(bytes: Uint8Array, file: string): Promise<Document> {
  const json = await jsonOf(bytes, file);
  if (json !== null) return readJson(json, file, null);
  const document = readBvh(new TextDecoder().decode(bytes), file);
  checkModel(document, file);
  return document;
}

/**
 * The description in the bytes of a `.glb` or `.gltf`; null for a `.bvh`, which has none.
 *
 * @throws FormatError as {@link readModel}
 */
export async function jsonOf(bytes: Uint8Array, file: string): Promise<JSONDocument | null> {
  if (isBvh(bytes, file)) return null;
  if (bytes.byteLength < 20) {
    throw new FormatError(
      file,
      `has ${bytes.byteLength} bytes, too few for a model; expected a .glb or .gltf file.`,
    );
  }
  return readContainer(bytes, file);
}

/**
 * The document of a description with all files that it names.
 *
 * @param packing what undoes packed meshes, where a model is taken in; one that is kept has none any more
 */
export function readJson(json: JSONDocument, file: string, packing: Packing | null): Promise<Document> {
  return readable(file, async () => {
    refuseForeign(json, file, packing !== null);
    checkGltf(json.json, file);
    const io = gltfIo();
    await packing?.addDecoders(io, json.json.extensionsUsed ?? []);
    const document = await io.readJSON(json);
    packing?.unpack(document);
    checkModel(document, file);
    giveNames(document);
    return document;
  });
}

/** Ways to undo how meshes are packed: megabytes that only who takes models in has to load. */
export interface Packing {
  addDecoders(io: WebIO, used: readonly string[]): Promise<unknown>;
  unpack(document: Document): void;
}

/** An error within a file that claims to be glTF is reported as the file's fault. */
function readable<T>(file: string, read: () => T): T {
  const refuse = (error: unknown): never => {
    if (error instanceof FormatError) throw error;
    throw new FormatError(file, `cannot be read as glTF 2.0 (${firstLine(error)}).`);
  };
  try {
    const result = read();
    return result instanceof Promise ? (result.catch(refuse) as T) : result;
  } catch (error) {
    return refuse(error);
  }
}

/** Whether a file is, or is meant to be, a figure's motion in BVH. */
export function isBvh(bytes: Uint8Array, file: string): boolean {
  const start = new TextDecoder().decode(bytes.subarray(0, 64)).trimStart();
  return /\.bvh$/i.test(file) || /^HIERARCHY\s/i.test(start);
}

async function readContainer(bytes: Uint8Array, file: string): Promise<JSONDocument> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0, true) === GLB_MAGIC) {
    const version = view.getUint32(4, true);
    if (version !== 2) throw new FormatError(file, `is GLB version ${version}; expected version 2.`);
    const declaredLength = view.getUint32(8, true);
    if (declaredLength > bytes.byteLength) {
      throw new FormatError(file, `is cut off: ${bytes.byteLength} of ${declaredLength} bytes are there.`);
    }
    try {
      return await gltfIo().binaryToJSON(bytes);
    } catch (error) {
      throw new FormatError(file, `is a broken GLB (${firstLine(error)}).`);
    }
  }
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  if (!text.trimStart().startsWith('{')) {
    throw new FormatError(file, 'is neither GLB nor glTF; expected a .glb or .gltf file.');
  }
  try {
    return { json: JSON.parse(text) as GLTF.IGLTF, resources: {} };
  } catch (error) {
    throw new FormatError(file, `is not valid JSON (${firstLine(error)}); expected a .gltf file.`);
  }
}

function refuseForeign({ json, resources }: JSONDocument, file: string, taking: boolean): void {
  const version: unknown = json?.asset?.version;
  if (typeof version !== 'string') {
    throw new FormatError(file, 'has no asset.version; expected a glTF 2.0 file.');
  }
  if (!/^2\./.test(version)) throw new FormatError(file, `is glTF ${version.slice(0, 20)}; expected 2.0.`);
  const outside = [...(json.buffers ?? []), ...(json.images ?? [])]
    .map((item) => item.uri)
    .filter((uri) => uri !== undefined && !uri.startsWith('data:') && !(uri in resources));
  if (outside.length > 0) {
    throw new FormatError(
      file,
      `needs other files (${outside.slice(0, 3).join(', ').slice(0, 150)}); expected one file with everything inside, such as a .glb.`,
    );
  }
  (json.buffers ?? []).forEach((buffer, i) => {
    if (!(buffer.byteLength > 0) || buffer.uri !== undefined) return;
    if (GLB_BUFFER in resources || isFallback(buffer)) return;
    throw new FormatError(
      file,
      `has buffers[${i}] without its ${buffer.byteLength} bytes; expected them in the file.`,
    );
  });
  const cached = new Set(ALL_EXTENSIONS.map((extension) => extension.EXTENSION_NAME));
  const missing = (json.extensionsRequired ?? []).filter(
    (name) => (UNREADABLE.has(name) && !taking) || !cached.has(name),
  );
  if (missing.length > 0) {
    throw new FormatError(
      file,
      `requires ${missing.join(', ').slice(0, 150)}, which cannot be read; export it without.`,
    );
  }
}

/** A placeholder buffer of packed meshes, which has no data. */
function isFallback(buffer: GLTF.IBuffer): boolean {
  return buffer.extensions !== undefined && 'EXT_meshopt_compression' in buffer.extensions;
}

/** @throws FormatError for a document that could not be shown or played */
export function checkModel(document: Document, file: string): void {
  if ((sceneOf(document)?.listChildren() ?? []).length === 0) {
    throw new FormatError(file, 'has no scene with nodes in it; expected something to see.');
  }
  for (const { node, matrix } of everyNode(document)) {
    if (allFinite(matrix)) continue;
    throw new FormatError(
      file,
      `node "${node.getName().slice(0, 100)}" is moved or scaled beyond all numbers.`,
    );
  }
  for (const mesh of document.getRoot().listMeshes()) {
    for (const primitive of mesh.listPrimitives()) {
      const position = primitive.getAttribute('POSITION');
      const at = `mesh "${mesh.getName().slice(0, 100)}"`;
      if (!position) throw new FormatError(file, `${at} has no positions.`);
      if (position.getType() !== 'VEC3' || !allFinite(position.getArray())) {
        throw new FormatError(file, `${at} has positions that are not numbers.`);
      }
      if (largest(primitive.getIndices()?.getArray()) >= position.getCount()) {
        throw new FormatError(file, `${at} points to a vertex it does not have.`);
      }
    }
  }
}

function allFinite(numbers: ArrayLike<number> | null): boolean {
  if (numbers === null) return false;
  for (let i = 0; i < numbers.length; i++) if (!Number.isFinite(numbers[i])) return false;
  return true;
}

function largest(numbers: ArrayLike<number> | null | undefined): number {
  let most = -1;
  for (let i = 0; i < (numbers?.length ?? 0); i++) most = Math.max(most, (numbers as ArrayLike<number>)[i]);
  return most;
}

function factsOf(document: Document): ModelFacts {
  const root = document.getRoot();
  const standing = worldNodes(document);
  const parts = partsOf(standing);
  const facing = findFacing(parts);
  const hierarchy = hierarchyOf(document);
  const { low, high } = hierarchy.box ?? { low: [0, 0, 0], high: [0, 0, 0] };
  const gaits = hierarchy.clips.map((clip) => findGait(hierarchy, clip, facing.forward, facing.up));
  const walks = root.listSkins().length > 0 || gaits.some(({ stride }) => stride > 0);
  const places = new Map(everyNode(document).map((one) => [one.node, worldOriginOf(one)]));
  return {
    version: FACTS_VERSION,
    nodes: root.listNodes().map((node) => node.getName()),
    places: root.listNodes().map((node) => places.get(node) ?? [0, 0, 0]),
    clips: root.listAnimations().map((clip) => ({
      name: clip.getName(),
      seconds: clip
        .listSamplers()
        .reduce((most, sampler) => Math.max(most, sampler.getInput()?.getMax([])[0] ?? 0), 0),
    })),
    low,
    high,
    triangles: countTriangles(standing),
    skinned: root.listSkins().length > 0,
    unit: likelyUnit(low, high, walks),
    placing: placingOf(document),
    facing,
    rig: findRig(parts, facing),
    gaits,
    morphs: hierarchy.nodes
      .filter(({ weights }) => weights.length > 0)
      .map(({ name, weights }) => ({
        node: name,
        shapes: weights.length,
        names: shapeNames(
          root.listNodes().find((node) => node.getName() === name && node.getMesh()),
          weights.length,
        ),
      })),
  };
}

/** Names of a mesh's morph targets (`extras.targetNames`, a custom of glTF); none unless there is one for each. */
function shapeNames(node: Node | undefined, count: number): string[] {
  const given: unknown = node?.getMesh()?.getExtras().targetNames;
  if (!Array.isArray(given) || given.length !== count) return [];
  return given.every((name) => typeof name === 'string' && name !== '') ? (given as string[]) : [];
}

/** Names kept of a part's ancestors, the nearest first: those further up say nothing of it. */
const MOST_NAMES = 16;

/** Parts of a model at their rest positions. A node without a mesh has no size, unless none has one: a skeleton alone. */
function partsOf(standing: readonly WorldNode[]): RigPart[] {
  const parts: RigPart[] = [];
  const bare = standing.every(({ node }) => node.getMesh() === null);
  for (const one of standing) {
    const { node, parent, matrix } = one;
    const names = [node.getName(), ...(parts[parent]?.names ?? []).slice(0, MOST_NAMES - 1)];
    const { translation: origin, rotation: turn } = splitMatrix(matrix);
    const positions = bare ? Float64Array.from(origin) : worldPositions(one);
    parts.push({ names, positions, parent, origin, turn });
  }
  return parts;
}

/** Wheels, steering and body of a model that was read. */
export function rigOf(document: Document): FoundRig {
  const parts = partsOf(worldNodes(document));
  return findRig(parts, findFacing(parts));
}

function countTriangles(standing: readonly WorldNode[]): number {
  let count = 0;
  for (const { node } of standing) {
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const vertices =
        primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')?.getCount() ?? 0;
      if (primitive.getMode() === 4) count += Math.floor(vertices / 3);
    }
  }
  return count;
}

function firstLine(error: unknown): string {
  return (error as Error).message.split('\n')[0].trim().slice(0, 160);
}
