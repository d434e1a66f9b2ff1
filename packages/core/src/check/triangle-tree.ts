import { BufferAttribute, BufferGeometry } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';

/** A tree of boxes around triangles. */
export function treeOf({ positions, indices }: TriangleMesh): MeshBVH {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  // The tree reorders what it is given.
  geometry.setIndex(new BufferAttribute(indices.slice(), 1));
  return new MeshBVH(geometry);
}
