import type { ModelMesh } from '../geometry/solid/model-mesh.js';
import type { TriangleMesh } from '../geometry/solid/triangle-mesh.js';
import type { FoundRig } from '../vehicle/wheels/find-rig.js';
import { Solid } from './solid.js';

/** Mesh of a model, and the rig found in it. */
export interface CheckedModel {
  readonly mesh: ModelMesh;
  readonly rig: FoundRig;
}

/** Models that a shot is checked against, beside its assets; plain data, so that it can be sent between threads. */
export interface CheckScene {
  /** By the document’s ids, as far as they are read. */
  readonly models: ReadonlyMap<string, CheckedModel>;
  /** Models that were looked for and cannot be read. */
  readonly missing: ReadonlySet<string>;
  /** Static set on the ground that is not ground itself, in world space. */
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

/** The static set as a solid. */
export const staticSetOfScene = ({ staticSet }: CheckScene): Solid | null => staticSet && solidOf(staticSet);
