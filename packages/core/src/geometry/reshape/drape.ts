import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import type { GroundHeight } from '../path/height-profile.js';
import { fitPositions } from './fit-positions.js';

const SPACING = 0.1;
const FEWEST = 64;
const MOST = 6_000;

/**
 * The path draped on the ground at a height above it, within a tolerance, as Bézier. Its line in plan is kept;
 * without ground it keeps the height of the last point with some, and its own before the first.
 *
 * @throws PathError where the path has no curve
 */
export function drapePath(path: ShotPath, ground: GroundHeight, height: number, tolerance: number): ShotPath {
  const curve = compilePath(path);
  const steps = Math.min(MOST, Math.max(FEWEST, Math.ceil(curve.length / SPACING)));
  const count = curve.closed ? steps : steps + 1;
  const positions = new Float64Array(3 * count);
  const here: Vec3 = [0, 0, 0];
  let last: number | null = null;
  for (let i = 0; i < count; i++) {
    curve.position((curve.length * i) / steps, here);
    const found = ground(here[0], here[2], here[1]);
    if (found !== null) last = found + height;
    positions[3 * i] = here[0];
    positions[3 * i + 1] = last ?? here[1];
    positions[3 * i + 2] = here[2];
  }
  const rollAt = (i: number) => curve.rollDegrees(Math.min(curve.length, (curve.length * i) / steps));
  return fitPositions(path, positions, curve.closed, tolerance, rollAt);
}
