import type { Segments } from './segments.js';

/** Curve of a basis through a path's points. */
export interface Curve {
  readonly segments: Segments;
  /** By active point the path parameter (segment + u) where it acts: on the curve, or nearest in effect. */
  readonly pointParameters: Float64Array;
}
