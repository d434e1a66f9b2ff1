import type { TriangleMesh } from './triangle-mesh.js';

/** The corners of a box and its twelve triangles. */
const BOX = [
  0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7, 3,
];

/** A box by its lowest and highest corner, as triangles. */
export function boxMesh(low: ArrayLike<number>, high: ArrayLike<number>): TriangleMesh {
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
