/** Limits of a model: a larger one could not be animated or shown. */
export const MODEL_LIMITS = {
  nodes: 50_000,
  /** Nodes that hang on each other; a rope of bones has some hundreds. */
  depth: 2_000,
  /** Numbers of all accessors together: 240 MB of them. */
  elements: 60_000_000,
  /** Vertices as drawn, if a mesh is used more than once. */
  vertices: 10_000_000,
} as const;
