import type { ShotPath } from '../../document/shot-path.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { deviation } from '../path/deviation.js';
import { drapePath } from './drape.js';
import { liftPath } from './lift.js';
import { nearestToPoint } from '../path/nearest.js';
import { offsetSideways } from './offset-sideways.js';
import { findKinks } from '../path/path-facts.js';
import { resamplePath } from './resample.js';
import { shapePath } from './shapes.js';
import { smoothPath } from './smooth.js';
import { thinPath } from './thin.js';
import { at, ofBasis, pathOf } from '../../../test/paths.js';

describe('beside the path', () => {
  const circle = shapePath({ kind: 'circle', radius: 10 }, [0, 0, 0]);

  it.each([
    [3, 7],
    [-3, 13],
  ])('of a circle run to the left, %d m to the left has %d m of radius', (side, radius) => {
    const lane = compilePath(offsetSideways(circle, side, 1e-3));
    expect(lane.closed).toBe(true);
    for (let s = 0; s < lane.length; s += 1)
      expect(Math.abs(Math.hypot(...at(lane, s)) - radius)).toBeLessThan(2e-3);
  });

  it('more than the radius leaves nothing, and says so', () => {
    expect(() => offsetSideways(circle, 12, 1e-3)).toThrow(/bends tighter than the offset is wide/);
  });

  it('of a square cuts the inner corners and rounds the outer ones', () => {
    const square = pathOf({
      basis: 'polyline',
      closed: true,
      points: (
        [
          [0, 0, 0],
          [0, 0, 10],
          [10, 0, 10],
          [10, 0, 0],
        ] as Vec3[]
      ).map((position) => ({ position })),
    });
    // +Z then +X is a left turn: left is the inside.
    expect(compilePath(offsetSideways(square, 2, 1e-4)).length).toBeCloseTo(4 * 6, 6);
    expect(compilePath(offsetSideways(square, -2, 1e-4)).length).toBeCloseTo(40 + 4 * Math.PI, 2);
  });

  it('is everywhere as far away as asked, loops of tight bends cut off', () => {
    const hairpin = pathOf({
      basis: 'through',
      points: (
        [
          [0, 0, 0],
          [0, 0, 20],
          [2, 0, 22],
          [4, 0, 20],
          [4, 0, 0],
        ] as Vec3[]
      ).map((position) => ({ position })),
    });
    const source = compilePath(hairpin);
    const lane = compilePath(offsetSideways(hairpin, 1.5, 1e-3));
    for (let i = 0; i <= 300; i++) {
      const gap = nearestToPoint(source, at(lane, (lane.length * i) / 300)).gap;
      expect(gap).toBeGreaterThan(1.5 - 5e-3);
      expect(gap).toBeLessThan(1.5 + 5e-3);
    }
  });

  it('keeps both levels of a path that passes over itself', () => {
    const eight = shapePath({ kind: 'eight', length: 40, width: 16, bridge: 5 }, [0, 0, 0]);
    const lane = compilePath(offsetSideways(eight, 1, 1e-3));
    expect(Math.abs(lane.length - compilePath(eight).length)).toBeLessThan(0.5);
  });
});

it('draped, a path is at its height over the ground, and keeps its line in plan', () => {
  const ground = (x: number, z: number) => Math.sin(x / 5) + 0.1 * z;
  const path = ofBasis('through', false);
  const draped = compilePath(drapePath(path, ground, 0.5, 2e-3));
  const flat = compilePath(liftPath({ ...path, points: path.points }, 0));
  for (let i = 0; i <= 100; i++) {
    const [x, y, z] = at(draped, (draped.length * i) / 100);
    expect(Math.abs(y - ground(x, z) - 0.5)).toBeLessThan(5e-3);
  }
  const [x, , z] = at(flat, flat.length);
  const end = at(draped, draped.length);
  expect(Math.hypot(end[0] - x, end[2] - z)).toBeLessThan(1e-9);
});

describe('smoothing', () => {
  const rough = pathOf({
    basis: 'through',
    points: Array.from({ length: 21 }, (_, i) => ({
      position: [i % 2 === 0 ? 0.4 : -0.4, 0, 2 * i] as Vec3,
    })),
  });
  const restless = (path: ShotPath) => {
    const curve = compilePath(path);
    let sum = 0;
    for (let i = 0; i < 500; i++) sum += curve.bend((curve.length * (i + 0.5)) / 500) ** 2;
    return sum / 500;
  };

  it('keeps the ends, and evens out more the stronger it is', () => {
    const [a, b] = [smoothPath(rough, 0.3), smoothPath(rough, 0.8)];
    for (const path of [a, b]) {
      expect(path.points[0].position).toEqual(rough.points[0].position);
      expect(path.points[20].position).toEqual(rough.points[20].position);
    }
    expect(restless(a)).toBeLessThan(restless(rough));
    expect(restless(b)).toBeLessThan(restless(a));
  });

  it('leaves even points on a line alone, and does nothing at strength 0', () => {
    const line = pathOf({
      basis: 'polyline',
      points: [0, 1, 2, 3].map((z) => ({ position: [0, 0, z] as Vec3 })),
    });
    smoothPath(line, 1).points.forEach((point, i) =>
      expect(distance3(point.position, [0, 0, i])).toBeLessThan(1e-9),
    );
    expect(smoothPath(rough, 0)).toBe(rough);
  });
});

describe('thinning', () => {
  const dense = pathOf({
    basis: 'through',
    points: Array.from({ length: 400 }, (_, i) => ({
      position: [20 * Math.sin(i / 40), 0.02 * i, 20 * Math.cos(i / 55)] as Vec3,
      roll: i / 10,
    })),
  });

  it.each([0.5, 0.05, 0.005])('to %d m keeps within it, with fewer points and the roll', (tolerance) => {
    const thin = thinPath(dense, tolerance);
    const [before, after] = [compilePath(dense), compilePath(thin)];
    expect(thin.points.length).toBeLessThan(dense.points.length / 4);
    expect(deviation(before, after)).toBeLessThan(tolerance * 1.1);
    expect(after.rollAt(after.length / 2)).toBeCloseTo(before.rollAt(before.length / 2), 1);
  });

  it('keeps the corners of straight runs', () => {
    const square = ofBasis('polyline', true);
    const thin = thinPath(square, 0.1);
    expect(findKinks(compilePath(thin))).toHaveLength(6);
    expect(deviation(compilePath(square), compilePath(thin))).toBeLessThan(1e-6);
  });
});

describe('resampled evenly', () => {
  it.each(['bezier', 'through', 'polyline'] as const)(
    'a %s path has its points at even distances on the curve',
    (basis) => {
      const path = ofBasis(basis, false);
      const before = compilePath(path);
      const even = compilePath(resamplePath(path, 40));
      even.pointDistances.forEach((s, i) =>
        expect(distance3(at(even, s), at(before, (i * before.length) / 39))).toBeLessThan(1e-7),
      );
    },
  );

  it.each(['bspline', 'nurbs'] as const)(
    'a %s path passes the curve at even knots, with as many points',
    (basis) => {
      const path = ofBasis(basis, true);
      const even = resamplePath(path, 40);
      expect(even.points).toHaveLength(40);
      expect(deviation(compilePath(path), compilePath(even))).toBeLessThan(0.05);
    },
  );
});
