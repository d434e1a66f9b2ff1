import type { TriangleMesh } from './triangle-mesh.js';

/** Mesh of one node of a model, in the node’s own space. */
export interface PartMesh extends TriangleMesh {
  /** Which node of the model’s hierarchy. */
  readonly node: number;
  /** Whether it has a picture or colours of its corners on it, so that it may look otherwise than its shape. */
  readonly isPictured: boolean;
}

/** Meshes of a model, part by part; plain data, so that it can be sent between threads. */
export type ModelMesh = readonly PartMesh[];

/** Meshes of a shot’s models by their ids in the document, as far as they are read. */
export type ModelShapes = ReadonlyMap<string, { readonly mesh: ModelMesh }>;

export const NO_SHAPES: ModelShapes = new Map();
