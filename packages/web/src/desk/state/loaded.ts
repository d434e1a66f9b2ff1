import type { GroundMesh, NodeHierarchy } from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';
import type { AsideEvaluation, Evaluation } from '../../evaluation/evaluation';

/** What came from the server and from workers: nothing of it is in the document. */
export interface Loaded {
  readonly evaluation: Evaluation | null;
  /** Of a shot that is shown before it is accepted, or compared with. */
  readonly aside: AsideEvaluation | null;
  /** Models the server keeps, with what was read from them. */
  readonly models: readonly KeptModel[];
  /** The triangles of the shot's ground, and what can move of models, by the document's ids; as far as they are read. */
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
}

export const newLoaded = (): Loaded => ({
  evaluation: null,
  aside: null,
  models: [],
  ground: null,
  hierarchies: new Map(),
});
