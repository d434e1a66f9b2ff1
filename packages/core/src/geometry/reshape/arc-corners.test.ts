import fc from 'fast-check';
import { newShot } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import { runs } from '../../../test/shots.js';
import { compilePath } from '../path/compile-path.js';
import type { Vec3 } from '../math/vec.js';
import { arcCorners } from './arc-corners.js';

const pathOf = (path: ReturnType<typeof runs>): ShotPath => newShot({ name: 't', paths: [path] }).paths[0];
const square = (closed: boolean, more = {}) =>
  pathOf({ ...runs([0, 0, 0], [0, 0, 10], [10, 0, 10], [10, 0, 0]), closed, ...more });
const all = new Set<number>();

it('a square of 10 m with corners of 2 m is as long as its straights and one whole circle', () => {
  const round = arcCorners(square(true), 2, all);
  expect(compilePath(round).length).toBeCloseTo(4 * 6 + 2 * Math.PI * 2, 8);
  expect(newShot({ name: 't', paths: [round] }).paths[0]).toEqual(round);
  const open = arcCorners(square(false), 2, all);
  expect(compilePath(open).length).toBeCloseTo(8 + 6 + 8 + Math.PI * 2, 8);
});

it('an arc is exactly round, and one point alone is rounded where only that is chosen', () => {
  const curve = compilePath(arcCorners(square(false), 3, new Set([1])));
  expect(curve.length).toBeCloseTo(7 + 1.5 * Math.PI + 7 + 10, 8);
  const place: Vec3 = [0, 0, 0];
  for (let s = 7; s < 7 + 1.5 * Math.PI; s += 0.1) {
    curve.position(s, place);
    expect(Math.hypot(place[0] - 3, place[2] - 7)).toBeCloseTo(3, 9);
    expect(Math.abs(curve.curvature(s + 1e-6))).toBeCloseTo(1 / 3, 6);
  }
});

it('is round in the world, wherever the path is turned and sized to; arcs that have no room are smaller', () => {
  const radius = fc.double({ min: 0.1, max: 60, noNaN: true });
  const size = fc.double({ min: 0.2, max: 4, noNaN: true });
  fc.assert(
    fc.property(radius, size, fc.boolean(), (wanted, scale, closed) => {
      const transform = { translation: [3, 1, -2], rotation: [0, 0.6, 0, 0.8], scale: [scale, 1, 2 * scale] };
      const path = square(closed, { transform });
      const before = compilePath(path);
      const curve = compilePath(arcCorners(path, wanted, all));
      // Never longer than the corners it cuts, and without any of them.
      expect(curve.length).toBeLessThan(before.length);
      const [into, out]: [Vec3, Vec3] = [
        [0, 0, 0],
        [0, 0, 0],
      ];
      for (const joint of curve.joints) {
        if (joint < 1e-9 || joint > curve.length - 1e-9) continue;
        curve.tangent(joint - 1e-7, into);
        curve.tangent(joint + 1e-7, out);
        expect(into[0] * out[0] + into[1] * out[1] + into[2] * out[2]).toBeGreaterThan(1 - 1e-5);
      }
    }),
    { numRuns: 60 },
  );
});

it('refuses what has no such corner', () => {
  expect(() => arcCorners({ ...square(false), basis: 'bezier' }, 2, all)).toThrow('no straight runs');
  expect(() => arcCorners(pathOf(runs([0, 0, 0], [0, 0, 9])), 2, all)).toThrow('no corner');
  expect(() => arcCorners(square(false), 2, new Set([0]))).toThrow('no corner');
});
