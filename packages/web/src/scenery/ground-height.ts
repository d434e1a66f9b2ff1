import { Ground, type GroundHeight, type GroundMesh } from '@fleet-rail/core';

const known = new WeakMap<GroundMesh, Ground>();

/** The ground of some triangles, its tree built once for each. */
export function groundOf(mesh: GroundMesh): Ground {
  const ground = known.get(mesh) ?? new Ground(mesh);
  known.set(mesh, ground);
  return ground;
}

/** How high the ground is; level at height 0 where there is none. */
export function groundHeightOf(mesh: GroundMesh | null): GroundHeight {
  return mesh === null ? levelGround : groundOf(mesh).nearestHeight;
}

const levelGround: GroundHeight = () => 0;
