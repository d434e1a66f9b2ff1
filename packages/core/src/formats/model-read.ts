import type { Document, Node } from '@gltf-transform/core';
import { WebIO, getBounds, type JSONDocument, type GLTF } from '@gltf-transform/core';
import { ALL_EXTENSIONS } from '@gltf-transform/extensions';
import { findFacing, type FoundFacing } from '../facing/index.js';
import { findGait, type FoundGait } from '../gait/index.js';
import { partsOf as placeOfMatrix } from '../hierarchy/model-space.js';
import { findRig, type FoundRig, type RigPart } from '../wheels/index.js';
import { hierarchyOf } from './hierarchy-read.js';
import type { Vec3 } from '../math/vec.js';
import { readBvh } from './bvh-read.js';
import { FormatError } from './format-error.js';

/** What a model is, in the numbers an animator asks for. */
export interface ModelFacts {
  readonly nodes: readonly string[];
  /** By node where its origin is as the model stands, metres. */
  readonly places: readonly Vec3[];
  readonly clips: readonly { readonly name: string; readonly seconds: number }[];
  /** Corners of the box around the model as it stands, metres. */
  readonly low: Vec3;
  readonly high: Vec3;
  readonly triangles: number;
  readonly skinned: boolean;
  /** Which way it seems to face. */
  readonly facing: FoundFacing;
  /** What rolls, steers and leans of it. */
  readonly rig: FoundRig;
  /** By clip what it is as a gait. */
  readonly gaits: readonly FoundGait[];
  /** By mesh with shapes the node that has them, and how many. */
  readonly morphs: readonly { readonly node: string; readonly shapes: number }[];
}

/** A model that was read and checked. */
export interface ReadModel {
  readonly document: Document;
  readonly facts: ModelFacts;
}

/** Compressed meshes: their decoders are not part of the product. */
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
  if (isBvh(bytes, file)) {
    const document = readBvh(new TextDecoder().decode(bytes), file);
    return { document, facts: checkedFacts(document, file) };
  }
  if (bytes.byteLength < 20) {
    throw new FormatError(
      file,
      `has ${bytes.byteLength} bytes, too few for a model; expected a .glb or .gltf file.`,
    );
  }
  const json = await readContainer(bytes, file);
  refuseForeign(json.json, file);
  let document: Document;
  try {
    document = await gltfIo().readJSON(json);
  } catch (error) {
    throw new FormatError(file, `cannot be read as glTF 2.0 (${firstLine(error)}).`);
  }
  return { document, facts: checkedFacts(document, file) };
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

function refuseForeign(json: GLTF.IGLTF, file: string): void {
  const version = json.asset?.version;
  if (version === undefined) {
    throw new FormatError(file, 'has no asset.version; expected a glTF 2.0 file.');
  }
  if (!/^2\./.test(version)) throw new FormatError(file, `is glTF ${version}; expected 2.0.`);
  const outside = [...(json.buffers ?? []), ...(json.images ?? [])]
    .map((item) => item.uri)
    .filter((uri) => uri !== undefined && !uri.startsWith('data:'));
  if (outside.length > 0) {
    throw new FormatError(
      file,
      `needs other files (${outside.slice(0, 3).join(', ')}); expected one file with everything inside, such as a .glb.`,
    );
  }
  const cached = new Set(ALL_EXTENSIONS.map((extension) => extension.EXTENSION_NAME));
  const missing = (json.extensionsRequired ?? []).filter((name) => UNREADABLE.has(name) || !cached.has(name));
  if (missing.length > 0) {
    throw new FormatError(file, `requires ${missing.join(', ')}, which cannot be read; export it without.`);
  }
}

function checkedFacts(document: Document, file: string): ModelFacts {
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  if (!scene || scene.listChildren().length === 0) {
    throw new FormatError(file, 'has no scene with nodes in it; expected something to see.');
  }
  for (const mesh of root.listMeshes()) {
    for (const primitive of mesh.listPrimitives()) {
      const position = primitive.getAttribute('POSITION');
      const at = `mesh "${mesh.getName()}"`;
      if (!position) throw new FormatError(file, `${at} has no positions.`);
      const numbers = position.getArray();
      if (!numbers || !numbers.every(Number.isFinite)) {
        throw new FormatError(file, `${at} has positions that are not numbers.`);
      }
      const indices = primitive.getIndices()?.getArray();
      if (indices?.some((index: number) => index >= position.getCount())) {
        throw new FormatError(file, `${at} points to a vertex it does not have.`);
      }
    }
  }
  const bounds = getBounds(scene);
  const parts = partsOf(scene.listChildren());
  const facing = findFacing(parts);
  const hierarchy = hierarchyOf(document);
  const empty = !bounds.min.every(Number.isFinite) || !bounds.max.every(Number.isFinite);
  return {
    nodes: root.listNodes().map((node) => node.getName()),
    places: root.listNodes().map((node) => node.getWorldTranslation()),
    clips: root.listAnimations().map((clip) => ({
      name: clip.getName(),
      seconds: Math.max(0, ...clip.listSamplers().map((s) => s.getInput()?.getMax([])[0] ?? 0)),
    })),
    low: empty ? [0, 0, 0] : (bounds.min as Vec3),
    high: empty ? [0, 0, 0] : (bounds.max as Vec3),
    triangles: countTriangles(scene.listChildren()),
    skinned: root.listSkins().length > 0,
    facing,
    rig: findRig(parts, facing),
    gaits: hierarchy.clips.map((clip) => findGait(hierarchy, clip, facing.forward, facing.up)),
    morphs: hierarchy.nodes
      .filter(({ weights }) => weights.length > 0)
      .map(({ name, weights }) => ({ node: name, shapes: weights.length })),
  };
}

/** The parts of a model in the places they stand in; a node without a mesh is its origin. */
function partsOf(roots: readonly Node[]): RigPart[] {
  const parts: RigPart[] = [];
  const visit = (node: Node, above: readonly string[], parent: number) => {
    const names = [node.getName(), ...above];
    const matrix = node.getWorldMatrix();
    const place = (x: number, y: number, z: number) =>
      [0, 1, 2].map((k) => matrix[k] * x + matrix[4 + k] * y + matrix[8 + k] * z + matrix[12 + k]);
    const positions: number[] = [];
    const corner: number[] = [];
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const corners = primitive.getAttribute('POSITION');
      for (let i = 0; i < (corners?.getCount() ?? 0); i++) {
        corners?.getElement(i, corner);
        positions.push(...place(corner[0], corner[1], corner[2]));
      }
    }
    if (positions.length === 0 && node.listChildren().length === 0) positions.push(...place(0, 0, 0));
    const { translation: origin, rotation: turn } = placeOfMatrix(matrix);
    const own = parts.length;
    parts.push({ names, positions, parent, origin, turn });
    node.listChildren().forEach((child) => visit(child, names, own));
  };
  roots.forEach((root) => visit(root, [], -1));
  return parts;
}

function countTriangles(nodes: readonly Node[]): number {
  let count = 0;
  for (const node of nodes) {
    node.traverse((inner) => {
      for (const primitive of inner.getMesh()?.listPrimitives() ?? []) {
        const vertices =
          primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')?.getCount() ?? 0;
        if (primitive.getMode() === 4) count += Math.floor(vertices / 3);
      }
    });
  }
  return count;
}

function firstLine(error: unknown): string {
  return (error as Error).message.split('\n')[0].trim();
}
