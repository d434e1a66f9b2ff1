import { vec3 } from 'gl-matrix';
import { defaultsOf } from '../../document/defaults.js';
import { PathPoint, type Handles, type ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import type { Bezier } from '../path/bezier.js';
import { toLocal } from '../path/placement.js';

const plainPoint = defaultsOf(PathPoint);

/**
 * A Bézier path of the given pieces, in the place of another path: its name, marks and transform are kept.
 *
 * @param pieces in world space, each beginning where the one before ends; on a closed path the last ends
 *               where the first begins
 * @param rollAt degrees of roll at point i
 */
export function bezierPath(
  path: ShotPath,
  pieces: readonly Bezier[],
  closed: boolean,
  rollAt: (i: number) => number,
): ShotPath {
  const count = closed ? pieces.length : pieces.length + 1;
  const points = Array.from({ length: count }, (_, i): PathPoint => {
    const after = i < pieces.length ? pieces[i] : null;
    const before = i > 0 ? pieces[i - 1] : closed ? pieces[pieces.length - 1] : null;
    const world = after ? after[0] : (before as Bezier)[3];
    const position = toLocal(path.transform, world);
    const handle = (end: Vec3 | undefined): Vec3 =>
      end ? (vec3.subtract([0, 0, 0], toLocal(path.transform, end), position) as Vec3) : [0, 0, 0];
    const into = handle(before?.[2]);
    const out = handle(after?.[1]);
    return { ...plainPoint, position, in: into, out, handles: handlesKind(into, out), roll: rollAt(i) };
  });
  return { ...path, basis: 'bezier', closed, points, knots: null };
}

/** Relation of two handles; one without length leaves the other free to be smooth. */
export function handlesKind(into: Vec3, out: Vec3): Handles {
  const a = vec3.length(into);
  const b = vec3.length(out);
  if (a === 0 || b === 0) return a === b ? 'corner' : 'smooth';
  const sum = vec3.add([0, 0, 0], vec3.scale([0, 0, 0], into, 1 / a), vec3.scale([0, 0, 0], out, 1 / b));
  if (vec3.length(sum) > 1e-6) return 'corner';
  return Math.abs(a - b) < 1e-9 * (a + b) ? 'symmetric' : 'smooth';
}
