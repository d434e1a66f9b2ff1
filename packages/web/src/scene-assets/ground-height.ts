import {
  GroundSurface,
  type GroundHeight,
  type GroundMesh,
  type NodeHierarchy,
  type SceneAssets,
} from '@fleet-rail/core';
import { pagePhysics } from './page-physics';

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

/** What the page has read of what a shot is played with. */
export interface LoadedAssets {
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
}

/** What a shot is played with, for edits that ask where something is. */
export function sceneAssets({ ground, hierarchies }: LoadedAssets): SceneAssets {
  return { ground: ground && groundOf(ground), hierarchies };
}

/** The same with forces, which take their time: for what is baked here. */
export function bakingAssets(assets: LoadedAssets): SceneAssets {
  return { ...sceneAssets(assets), physics: pagePhysics() };
}

const levelGround: GroundHeight = () => 0;
