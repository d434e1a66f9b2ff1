import {
  GroundSurface,
  type GroundHeight,
  type GroundMesh,
  type NodeHierarchy,
  type Physics,
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

/** How high the floor lies; 0 where there is none. */
export const floorHeight = (mesh: GroundMesh | null): number => mesh?.level ?? 0;

/** Assets of a shot that the page has read. */
export interface LoadedAssets {
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
  readonly physics: Physics | null;
}

/** Assets of a shot, for edits that ask where something is. */
export function sceneAssets({ ground, hierarchies, physics }: LoadedAssets): SceneAssets {
  return { ground: ground && groundOf(ground), hierarchies, physics };
}

const levelGround: GroundHeight = () => 0;
