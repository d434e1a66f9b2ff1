import type { GroundHeight } from '@fleet-rail/core';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/** Triangles of the ground in the world. */
export interface GroundMesh {
  /** x, y, z of each vertex in turn. */
  readonly positions: Float32Array;
  /** Three vertices a triangle. */
  readonly indices: Uint32Array;
}

const ABOVE = 1e5;

/** Answers how high the ground is, by rays straight down through a tree of its triangles. */
export function groundHeight(mesh: GroundMesh): GroundHeight {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setIndex(new BufferAttribute(mesh.indices, 1));
  const tree = new MeshBVH(geometry);
  const ray = new Ray(new Vector3(), new Vector3(0, -1, 0));
  return (x, z, near) => {
    ray.origin.set(x, ABOVE, z);
    let best: number | null = null;
    for (const { point } of tree.raycast(ray, DoubleSide)) {
      if (best === null || Math.abs(point.y - near) < Math.abs(best - near)) best = point.y;
    }
    return best;
  };
}

const known = new WeakMap<GroundMesh, GroundHeight>();

/** {@link groundHeight}, its tree built once for each ground; level at height 0 where there is none. */
export function groundHeightOf(mesh: GroundMesh | null): GroundHeight {
  if (mesh === null) return levelGround;
  const height = known.get(mesh) ?? groundHeight(mesh);
  known.set(mesh, height);
  return height;
}

const levelGround: GroundHeight = () => 0;
