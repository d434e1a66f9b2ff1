import type { Vec3 } from '../math/vec.js';
import type { CompiledPath } from './compiled-path.js';

const PER_SEGMENT = 12;
const FEWEST = 120;
const MOST = 1_500;

/** Teeth of a curvature comb: as long as the path bends, on the outer side of the bend. */
export interface CurvatureComb {
  /** x, y, z of each place on the path in turn. */
  readonly feet: Float64Array;
  /** Away from the middle of the bend, as long as the curvature, 1/m. */
  readonly teeth: Float64Array;
  /** The longest tooth, 1/m. */
  readonly most: number;
}

/** The curvature comb of a path at even distances. */
export function curvatureComb(curve: CompiledPath): CurvatureComb {
  const count = Math.min(MOST, Math.max(FEWEST, PER_SEGMENT * curve.segments.count));
  const feet = new Float64Array(3 * count);
  const teeth = new Float64Array(3 * count);
  const tooth: Vec3 = [0, 0, 0];
  let most = 0;
  for (let i = 0; i < count; i++) {
    const s = (curve.length * (i + 0.5)) / count;
    curve.position(s, feet.subarray(3 * i));
    curve.curvatureVector(s, tooth);
    for (let k = 0; k < 3; k++) teeth[3 * i + k] = -tooth[k];
    most = Math.max(most, Math.hypot(...tooth));
  }
  return { feet, teeth, most };
}
