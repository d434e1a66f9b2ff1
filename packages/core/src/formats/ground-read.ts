import type { Document, Node } from '@gltf-transform/core';
import { floorAt, type GroundMesh } from '../geometry/ground/ground-surface.js';
import type { Shot } from '../document/shot.js';
import { worldNodes, worldPositions, type WorldNode } from './gltf-scene.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';

/**
 * Triangles of a model, or of some of its nodes with their descendants, in the rest pose; null without any. Node
 * matrices are applied to the positions, including scales.
 *
 * @param names of the nodes that count; all where there are none
 */
export function groundMeshOf(model: Document, names: readonly string[]): TriangleMesh | null {
  return meshOfAll(splitAtGround(model, names).ground);
}

/**
 * The ground of a shot: of its model, or its floor where it has no model; null where there is none.
 *
 * @param model the ground's, where it has been read
 */
export function groundOfShot(
  { ground }: Pick<Shot, 'ground'>,
  model: Document | undefined,
): GroundMesh | null {
  if (ground.model === null) return ground.level === null ? null : floorAt(ground.level);
  return model ? groundMeshOf(model, ground.nodes) : null;
}

/** Triangles of all other nodes of a model whose ground nodes are given; null without any. */
export function staticSetMeshOf(model: Document, names: readonly string[]): TriangleMesh | null {
  return meshOfAll(splitAtGround(model, names).scenery);
}

function splitAtGround(model: Document, names: readonly string[]) {
  const wanted = new Set(names);
  const standing = worldNodes(model);
  const taken: boolean[] = [];
  standing.forEach(({ node, parent }) =>
    taken.push(wanted.size === 0 || taken[parent] || wanted.has(node.getName())),
  );
  return { ground: standing.filter((_, i) => taken[i]), scenery: standing.filter((_, i) => !taken[i]) };
}

function meshOfAll(chosen: readonly WorldNode[]): TriangleMesh | null {
  const positions = new Float64Array(chosen.reduce((sum, { node }) => sum + 3 * verticesOf(node), 0));
  const indices: number[] = [];
  let first = 0;
  for (const one of chosen) first += addTriangles(one, first, positions, indices);
  return indices.length === 0 ? null : { positions, indices: Uint32Array.from(indices) };
}

export const verticesOf = (node: Node): number =>
  (node.getMesh()?.listPrimitives() ?? []).reduce(
    (sum, primitive) => sum + (primitive.getAttribute('POSITION')?.getCount() ?? 0),
    0,
  );

/** How a mesh lists its triangles: three corners each, a strip, or a fan. */
const MODES = { triangles: 4, strip: 5, fan: 6 };

/** @returns how many vertices the node has */
function addTriangles(one: WorldNode, before: number, positions: Float64Array, indices: number[]): number {
  positions.set(worldPositions(one), 3 * before);
  return addIndices(one.node, before, indices);
}

/** Adds the triangles of a node’s mesh, with an offset of its vertex indices. */
export function addIndices(node: Node, before: number, indices: number[]): number {
  let first = before;
  for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
    const vertices = primitive.getAttribute('POSITION')?.getCount() ?? 0;
    const mode = primitive.getMode();
    if (vertices > 0 && mode >= MODES.triangles) {
      const list = primitive.getIndices()?.getArray();
      const count = list?.length ?? vertices;
      const from = first;
      const at = (i: number) => from + (list ? list[i] : i);
      if (mode === MODES.triangles) {
        for (let i = 0; i < count - (count % 3); i++) indices.push(at(i));
      } else {
        for (let i = 0; i + 2 < count; i++)
          indices.push(at(mode === MODES.fan ? 0 : i), at(i + 1), at(i + 2));
      }
    }
    first += vertices;
  }
  return first - before;
}
