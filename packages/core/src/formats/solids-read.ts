import type { Document } from '@gltf-transform/core';
import { boxOf, type Box } from '../facing/round-part.js';
import type { ModelMesh, PartMesh, TriangleMesh } from '../solid/index.js';
import { standingNodes, standingPositions } from './gltf-scene.js';
import { addIndices, verticesOf } from './ground-read.js';
import { skinPlaces } from './hierarchy-read.js';

/** Vertices beyond this are not looked through for what meets what: such a model is told by the boxes of its parts. */
const MOST_VERTICES = 500_000;
/** The corners of a box and its twelve triangles. */
const BOX = [
  0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7, 3,
];

/**
 * What a model is made of, part by part, each in its own node’s space; skins as the boxes of their joints.
 */
export function modelMeshOf(model: Document): ModelMesh {
  const standing = standingNodes(model);
  const skins = skinPlaces(new Map(standing.map(({ node }, i) => [node, i])));
  const all = standing.reduce((sum, { node }) => sum + verticesOf(node), 0);
  return standing.flatMap(({ node }, i): PartMesh[] => {
    const parts: PartMesh[] = [];
    const hull = skins.get(i);
    if (hull) parts.push({ node: i, ...boxMesh(hull) });
    if (node.getSkin() || verticesOf(node) === 0) return parts;
    const positions = Float32Array.from(standingPositions({ node, parent: -1, matrix: IDENTITY }));
    const indices: number[] = [];
    addIndices(node, 0, indices);
    if (indices.length === 0) return parts;
    const mesh = all > MOST_VERTICES ? boxMesh(positions) : { positions, indices: Uint32Array.from(indices) };
    return [...parts, { node: i, ...mesh }];
  });
}

const IDENTITY = Float64Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);

function boxMesh(places: ArrayLike<number>): TriangleMesh {
  const { low, high } = boxOf(places) as Box;
  const corner = (i: number) => [
    i & 4 ? high[0] : low[0],
    i & 2 ? high[1] : low[1],
    i & 1 ? high[2] : low[2],
  ];
  return {
    positions: Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap(corner)),
    indices: Uint32Array.from(BOX),
  };
}
