import type { ModelMesh } from '../geometry/solid/model-mesh.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';
import type { FoundRig } from '../vehicle/wheels/find-rig.js';
import { Solid } from './solid.js';

/** What a model is made of, and what was found to roll on it. */
export interface CheckedModel {
  readonly mesh: ModelMesh;
  readonly rig: FoundRig;
}

/** What a shot is held against beside what it is played with; plain data, so that it goes from thread to thread. */
export interface CheckScene {
  /** By the document’s ids, as far as they are read. */
  readonly models: ReadonlyMap<string, CheckedModel>;
  /** Models that were looked for and cannot be read. */
  readonly missing: ReadonlySet<string>;
  /** What stands on the ground and is none, in the world. */
  readonly staticSet: TriangleMesh | null;
}

export const NO_SCENE: CheckScene = { models: new Map(), missing: new Set(), staticSet: null };

const solids = new WeakMap<TriangleMesh, Solid>();

/** Triangles as a solid, made once. */
export function solidOf(mesh: TriangleMesh): Solid {
  const solid = solids.get(mesh) ?? new Solid(mesh);
  solids.set(mesh, solid);
  return solid;
}

/** The set that stands on the ground, as a solid. */
export const staticSetOfScene = ({ staticSet }: CheckScene): Solid | null => staticSet && solidOf(staticSet);
