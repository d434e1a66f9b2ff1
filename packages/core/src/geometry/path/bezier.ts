import type { Vec3 } from '../math/vec.js';

/** A cubic in Bézier form: its four control points. */
export type Bezier = readonly [Vec3, Vec3, Vec3, Vec3];
