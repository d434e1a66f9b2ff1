import type {
  FreeEye,
  GroundMesh,
  KeptView,
  NodeHierarchy,
  Physics,
  Placement,
  Vec3,
} from '@fleet-rail/core';
import type { CheckAssets } from '../workers/checks/check-api';
import type { Checked } from '../workers/checks/check-client';
import type { KeptModel } from '../api/models';
import type { EditAsker } from '../workers/evaluation/asked-edits';
import type { AsideEvaluation, Evaluation } from '../workers/evaluation/evaluation';

/** Data from the server and from workers: none of it is in the document. */
export interface Loaded {
  readonly evaluation: Evaluation | null;
  /** Of a shot that is shown before it is accepted, or compared with. */
  readonly aside: AsideEvaluation | null;
  /** Models the server keeps, with what was read from them. */
  readonly models: readonly KeptModel[];
  /** The triangles of the shot's ground, and what can move of models, by the document's ids; as far as they are read. */
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
  /** Runs edits that need to know where something is; null until the desk is open. */
  readonly editAsker: EditAsker | null;
  /** Edits that the worker has not answered yet; they never reject. */
  readonly pendingEdits: ReadonlySet<Promise<void>>;
  /** Rigid bodies; null until a shot needs them. */
  readonly physics: Physics | null;
  /** Models that Check needs beside the ground; null until they were read for the first time. */
  readonly checkModels: Pick<CheckAssets, 'hierarchies' | 'scene'> | null;
  /** Placement of the stage’s free view; null without a stage. */
  readonly eye: (() => Placement) | null;
  /** Eye of the present view at a frame; null without a stage. */
  readonly seen: ((frame: number) => FreeEye) | null;
  /** Position and target of the free view; null without a stage. */
  readonly stands: (() => Pick<KeptView, 'from' | 'at'>) | null;
  /** Draws a still stage once; null without a stage. */
  readonly drawStage: (() => void) | null;
  /** The distance along a path that lies nearest to a place of the screen, pixels from its corner; null while there is no stage. */
  readonly alongPath: ((path: string, x: number, y: number) => number | null) | null;
  /** The place at the height of the floor under a place of the screen; null while there is no stage. */
  readonly onLevel: ((x: number, y: number) => Vec3 | null) | null;
  /** Last checked shot; null before. */
  readonly checked: Checked | null;
}

export const newLoaded = (): Loaded => ({
  evaluation: null,
  aside: null,
  models: [],
  ground: null,
  hierarchies: new Map(),
  editAsker: null,
  pendingEdits: new Set(),
  physics: null,
  checkModels: null,
  eye: null,
  seen: null,
  stands: null,
  drawStage: null,
  alongPath: null,
  onLevel: null,
  checked: null,
});
