import {
  GroundSurface,
  NO_ASSETS,
  type GroundHeight,
  type GroundMesh,
  type SceneAssets,
} from '@fleet-rail/core';

const cached = new WeakMap<GroundMesh, GroundSurface>();

/** The ground of some triangles, its tree built once for each. */
export function groundOf(mesh: GroundMesh): GroundSurface {
  const ground = cached.get(mesh) ?? new GroundSurface(mesh);
  cached.set(mesh, ground);
  return ground;
}

/** How high the ground is; level at height 0 where there is none. */
export function groundHeightOf(mesh: GroundMesh | null): GroundHeight {
  return mesh === null ? levelGround : groundOf(mesh).nearestHeight;
}

/** What a shot is played with in the page itself: the ground; models stand there as they are. */
export function onGround(mesh: GroundMesh | null): SceneAssets {
  return { ...NO_ASSETS, ground: mesh && groundOf(mesh) };
}

const levelGround: GroundHeight = () => 0;
