import type { TriangleMesh } from './triangle-mesh.js';

/** What one node of a model is made of, in the node’s own space. */
export interface PartMesh extends TriangleMesh {
  /** Which node of the model’s hierarchy. */
  readonly node: number;
  /** Whether it has a picture or colours of its corners on it, so that it may look otherwise than its shape. */
  readonly isPictured: boolean;
}

/** What a model is made of, part by part; plain data, so that it goes from thread to thread. */
export type ModelMesh = readonly PartMesh[];

/** Meshes of a shot’s models by their ids in the document, as far as they are read. */
export type ModelShapes = ReadonlyMap<string, { readonly mesh: ModelMesh }>;

export const NO_SHAPES: ModelShapes = new Map();
