import type { Document, Node } from '@gltf-transform/core';
import { boxOf, type Box } from '../vehicle/facing/round-part.js';
import { boxMesh } from '../geometry/solid/box-mesh.js';
import type { ModelMesh, PartMesh } from '../geometry/solid/model-mesh.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';
import { worldNodes, worldPositions } from './gltf-scene.js';
import { addIndices, verticesOf } from './ground-read.js';
import { skinPlaces } from './hierarchy-read.js';

/** Most vertices for collision with triangles: a larger model is represented by the boxes of its parts. */
const MOST_VERTICES = 500_000;
/** Meshes of a model, part by part, each in its own node’s space; skins as the boxes of their joints. */
export function modelMeshOf(model: Document): ModelMesh {
  const standing = worldNodes(model);
  const skins = skinPlaces(new Map(standing.map(({ node }, i) => [node, i])));
  const all = standing.reduce((sum, { node }) => sum + verticesOf(node), 0);
  return standing.flatMap(({ node }, i): PartMesh[] => {
    const parts: PartMesh[] = [];
    const hull = skins.get(i);
    if (hull) parts.push({ node: i, isPictured: true, ...boxMeshAround(hull) });
    if (node.getSkin() || verticesOf(node) === 0) return parts;
    const positions = Float32Array.from(worldPositions({ node, parent: -1, matrix: IDENTITY }));
    const indices: number[] = [];
    addIndices(node, 0, indices);
    if (indices.length === 0) return parts;
    const mesh =
      all > MOST_VERTICES ? boxMeshAround(positions) : { positions, indices: Uint32Array.from(indices) };
    return [...parts, { node: i, isPictured: isPictured(node), ...mesh }];
  });
}

function isPictured(node: Node): boolean {
  const primitives = node.getMesh()?.listPrimitives() ?? [];
  return primitives.some(
    (one) =>
      one.getAttribute('COLOR_0') !== null || (one.getMaterial()?.getBaseColorTexture() ?? null) !== null,
  );
}

const IDENTITY = Float64Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);

function boxMeshAround(places: ArrayLike<number>): TriangleMesh {
  const { low, high } = boxOf(places) as Box;
  return boxMesh(low, high);
}
