import { Ground, NO_SCENERY, type GroundHeight, type GroundMesh, type Scenery } from '@fleet-rail/core';

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

/** What a shot is played with in the page itself: the ground; models stand there as they are. */
export function onGround(mesh: GroundMesh | null): Scenery {
  return { ...NO_SCENERY, ground: mesh && groundOf(mesh) };
}

const levelGround: GroundHeight = () => 0;
