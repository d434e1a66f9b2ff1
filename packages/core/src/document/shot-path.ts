import type { Vec3 } from './vector.js';
import {
  Amount,
  Flag,
  Id,
  KnotsOrNull,
  OneOf,
  Nested,
  NestedList,
  Point,
  Name,
  Whole,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { Transform } from './transform.js';

export const BASES = ['bezier', 'bspline', 'nurbs', 'through', 'polyline'] as const;
export type Basis = (typeof BASES)[number];

export const HANDLES = ['corner', 'smooth', 'symmetric', 'auto'] as const;
export type Handles = (typeof HANDLES)[number];

/** One point of a path. What does not concern the path's basis is kept, so that a change of basis loses nothing. */
export class PathPoint {
  @Point() position!: Vec3;
  /** Handle towards the point before, relative to the point. */
  @Point() in: Vec3 = [0, 0, 0];
  /** Handle towards the point after, relative to the point. */
  @Point() out: Vec3 = [0, 0, 0];
  @OneOf(...HANDLES) handles: Handles = 'smooth';
  @Amount('weight', 1e-6, 1e6) weight = 1;
  @Amount('degrees') roll = 0;
  /** Skipped, as if it were not there, for a trial. */
  @Flag() off = false;
}

/** A named place along a path. */
export class Mark {
  @Id() id!: string;
  @Name() name!: string;
  @Amount('metres along the path') distance!: number;
}

/** A curve in space to travel along. */
export class ShotPath {
  @Id() id!: string;
  @Name() name!: string;
  @OneOf(...BASES) basis: Basis = 'bezier';
  @Flag() closed = false;
  @Whole(1, 5) degree = 3;
  @KnotsOrNull() knots: number[] | null = null;
  @Amount('0 uniform, 0.5 centripetal, 1 chordal', 0, 1) alpha = 0.5;
  @NestedList(() => PathPoint, LIMITS.pointsPerPath) points: PathPoint[] = [];
  @Nested(() => Transform) transform: Transform = new Transform();
  @NestedList(() => Mark, LIMITS.marksPerPath) marks: Mark[] = [];
}
