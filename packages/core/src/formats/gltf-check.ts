import type { GLTF } from '@gltf-transform/core';
import { FormatError } from './format-error.js';
import { MODEL_LIMITS } from './model-limits.js';

const LISTS = [
  'accessors',
  'animations',
  'buffers',
  'bufferViews',
  'cameras',
  'images',
  'materials',
  'meshes',
  'nodes',
  'samplers',
  'scenes',
  'skins',
  'textures',
] as const;

/** Numbers an element of an accessor has. */
const SIZES: Readonly<Record<string, number>> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};
/** Bytes of a number by its component type. */
const BYTES: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };

/**
 * Refuses what could not be read, or only without end: lists that are none, nodes in a ring, too many or too deep, accessors
 * that hold more than is there. It looks at the description alone, before any of what it describes is made.
 *
 * @throws FormatError with the first of them
 */
export function checkGltf(json: GLTF.IGLTF, file: string): void {
  const fail = (problem: string): never => {
    throw new FormatError(file, problem);
  };
  for (const name of LISTS) {
    const list: unknown = json[name];
    if (list === undefined) continue;
    if (!Array.isArray(list)) fail(`has ${name} that are no list; expected a list.`);
    (list as unknown[]).forEach((entry, i) => {
      if (typeof entry !== 'object' || entry === null || Array.isArray(entry))
        fail(`has ${name}[${i}] that is no object; expected one.`);
      const own: unknown = (entry as { name?: unknown }).name;
      if (own !== undefined && typeof own !== 'string') fail(`has ${name}[${i}].name that is no text.`);
    });
  }
  checkNodes(json, fail);
  checkAccessors(json, fail);
  checkMeshes(json, fail);
}

type Fail = (problem: string) => never;

const isIndex = (value: unknown, count: number): value is number =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) < count;

function indices(value: unknown, count: number, what: string, of: string, fail: Fail): number[] {
  if (value === undefined) return [];
  if (!Array.isArray(value)) return fail(`has ${what} that are no list; expected a list of numbers.`);
  for (const entry of value as unknown[])
    if (!isIndex(entry, count)) fail(`has ${what} that name no ${of}: it has ${count}.`);
  return value as number[];
}

function checkNodes({ nodes = [], scenes = [], meshes = [] }: GLTF.IGLTF, fail: Fail): void {
  const count = nodes.length;
  if (count > MODEL_LIMITS.nodes)
    fail(`has ${counted(count)} nodes; at most ${counted(MODEL_LIMITS.nodes)} are taken.`);
  scenes.forEach((scene, i) => indices(scene.nodes, count, `scenes[${i}].nodes`, 'node', fail));
  const parent = new Int32Array(count).fill(-1);
  nodes.forEach((node, i) => {
    if (node.mesh !== undefined && !isIndex(node.mesh, meshes.length))
      fail(`has nodes[${i}].mesh that names no mesh: it has ${meshes.length}.`);
    for (const child of indices(node.children, count, `nodes[${i}].children`, 'node', fail)) {
      if (parent[child] >= 0) fail(`has node ${child} hang on two nodes; expected one.`);
      parent[child] = i;
    }
  });
  // Depths from the top down: what is never reached is in a ring.
  const depth = new Int32Array(count);
  let level = [...parent.keys()].filter((i) => parent[i] < 0);
  let reached = 0;
  for (let deep = 1; level.length > 0; deep++) {
    if (deep > MODEL_LIMITS.depth)
      fail(`has more than ${counted(MODEL_LIMITS.depth)} nodes that hang on each other; expected fewer.`);
    reached += level.length;
    for (const i of level) depth[i] = deep;
    level = level.flatMap((i) => nodes[i].children ?? []);
  }
  if (reached < count) fail(`has nodes in a ring (node ${depth.indexOf(0)} is in it); expected a tree.`);
}

function checkAccessors(json: GLTF.IGLTF, fail: Fail): void {
  const { accessors = [], bufferViews = [], buffers = [] } = json;
  bufferViews.forEach((view, i) => {
    if (!isIndex(view.buffer, buffers.length)) fail(`has bufferViews[${i}] in no buffer.`);
    const end = (view.byteOffset ?? 0) + view.byteLength;
    if (
      !(end <= buffers[view.buffer].byteLength) ||
      !((view.byteOffset ?? 0) >= 0) ||
      !(view.byteLength >= 0)
    )
      fail(`has bufferViews[${i}] reach past its buffer of ${buffers[view.buffer].byteLength} bytes.`);
  });
  let total = 0;
  accessors.forEach((accessor, i) => {
    const size = SIZES[accessor.type];
    const bytes = BYTES[accessor.componentType];
    const { count } = accessor;
    if (size === undefined || bytes === undefined)
      fail(`has accessors[${i}] of a kind that glTF does not have.`);
    if (!Number.isInteger(count) || count < 0)
      fail(`has accessors[${i}].count that is no whole number from 0.`);
    total += count * size;
    if (total > MODEL_LIMITS.elements)
      fail(`has more than ${counted(MODEL_LIMITS.elements)} numbers in its accessors; expected fewer.`);
    if (accessor.bufferView === undefined) return;
    if (!isIndex(accessor.bufferView, bufferViews.length)) fail(`has accessors[${i}] in no bufferView.`);
    const view = bufferViews[accessor.bufferView];
    const stride = view.byteStride ?? size * bytes;
    const needed = count === 0 ? 0 : (accessor.byteOffset ?? 0) + stride * (count - 1) + size * bytes;
    if (!(needed <= view.byteLength) || !(stride >= 0))
      fail(`has accessors[${i}] reach past its bufferView: ${needed} of ${view.byteLength} bytes.`);
  });
}

function checkMeshes({ nodes = [], meshes = [], accessors = [] }: GLTF.IGLTF, fail: Fail): void {
  const vertices = meshes.map((mesh, i) => {
    if (!Array.isArray(mesh.primitives)) return fail(`has meshes[${i}].primitives that are no list.`);
    return mesh.primitives.reduce((sum, primitive, k) => {
      const at = `meshes[${i}].primitives[${k}]`;
      const { attributes, indices: list } = primitive ?? {};
      if (typeof attributes !== 'object' || attributes === null) return fail(`has ${at} without attributes.`);
      for (const [name, index] of Object.entries(attributes))
        if (!isIndex(index, accessors.length)) fail(`has ${at}.${name} that names no accessor.`);
      if (list !== undefined && !isIndex(list, accessors.length))
        fail(`has ${at}.indices that name no accessor.`);
      return sum + (attributes.POSITION === undefined ? 0 : accessors[attributes.POSITION].count);
    }, 0);
  });
  const standing = nodes.reduce((sum, { mesh }) => sum + (mesh === undefined ? 0 : vertices[mesh]), 0);
  if (standing > MODEL_LIMITS.vertices)
    fail(
      `has ${counted(standing)} vertices as it stands; at most ${counted(MODEL_LIMITS.vertices)} are taken.`,
    );
}

/** 60000000 → "60,000,000" */
const counted = (count: number): string => count.toLocaleString('en-US');
