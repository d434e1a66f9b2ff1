// Paths that the tests of operations are tried on; not part of what core gives.
import { quat } from 'gl-matrix';
import { newShot, type Loose } from '../src/document/new-shot.js';
import type { Basis, ShotPath } from '../src/document/shot-path.js';
import { distance3, type Quat, type Vec3 } from '../src/geometry/math/vec.js';
import type { CompiledPath } from '../src/geometry/path/compiled-path.js';

export const pathOf = (parts: Loose<ShotPath>): ShotPath =>
  newShot({ name: 't', paths: [{ id: 'p', name: 'P', ...parts }] }).paths[0];
export const at = (path: CompiledPath, s: number): Vec3 => {
  const out: Vec3 = [0, 0, 0];
  path.position(s, out);
  return out;
};
/** How far apart two curves are at equal distances along them: nought only for the same curve run alike. */
export function apart(a: CompiledPath, b: CompiledPath, shift = 0): number {
  let most = Math.abs(a.length - b.length);
  for (let i = 0; i <= 200; i++) {
    const s = (a.length * i) / 200;
    if (!a.closed || a.wrap(s) === s) most = Math.max(most, distance3(at(a, s), at(b, s - shift)));
  }
  return most;
}

export const places: Vec3[] = [
  [0, 0, 0],
  [6, 1, 2],
  [9, 0, 9],
  [2, 3, 13],
  [-5, 0, 10],
  [-7, 1, 3],
];
export const turned = quat.setAxisAngle([0, 0, 0, 1], [0.6, 0.8, 0], 1.1) as Quat;
/** A path of every basis, its transform as crooked as it may be. */
export const ofBasis = (basis: Basis, closed: boolean, more: Loose<ShotPath> = {}): ShotPath =>
  pathOf({
    basis,
    closed,
    transform: { translation: [3, -1, 2], rotation: turned, scale: [1, 2, 0.5] },
    points: places.map((position, i) => ({
      position,
      in: [-1, 0.2, -0.5 * i],
      out: [1.4, 0, 0.6],
      handles: i % 2 === 0 ? 'auto' : 'corner',
      weight: 1 + 0.4 * (i % 3),
    })),
    ...more,
  });
export const BASES: Basis[] = ['bezier', 'bspline', 'nurbs', 'through', 'polyline'];
export const everyPath = BASES.flatMap((basis) => [false, true].map((closed) => [basis, closed] as const));
