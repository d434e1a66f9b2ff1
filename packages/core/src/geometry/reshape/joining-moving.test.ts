import { distance3, type Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { closeWithBridge, joinPaths } from './join-paths.js';
import { liftPath } from './lift.js';
import { mirrorPath } from './mirror.js';
import { closePath, openPath } from './open-close.js';
import { findKinks } from '../path/path-facts.js';
import { applyTransform, moveSomePoints, moveWholePath } from './transform-path.js';
import { apart, at, ofBasis, pathOf, turned } from '../../../test/paths.js';

describe('joining', () => {
  const straight = (z: number, x = 0) =>
    pathOf({ basis: 'polyline', points: [{ position: [x, 0, z] }, { position: [x, 0, z + 10] }] });
  const curved = ofBasis('through', false);

  it('bridges a gap without a break in direction or curvature', () => {
    const { path, secondStart } = joinPaths(curved, straight(30, 4), 1);
    const joined = compilePath(path);
    const [a, b] = [compilePath(curved), compilePath(straight(30, 4))];
    expect(findKinks(joined)).toEqual([]);
    expect(secondStart + b.length).toBeCloseTo(joined.length, 9);
    for (const part of [0.2, 0.9]) {
      expect(distance3(at(joined, part * a.length), at(a, part * a.length))).toBeLessThan(1e-7);
      expect(distance3(at(joined, secondStart + part * 10), at(b, part * 10))).toBeLessThan(1e-7);
    }
    for (const s of [a.length, secondStart]) {
      const [before, after]: Vec3[] = [
        [0, 0, 0],
        [0, 0, 0],
      ];
      joined.curvatureVector(s - 1e-7, before);
      joined.curvatureVector(s + 1e-7, after);
      expect(distance3(before, after)).toBeLessThan(1e-4);
    }
  });

  it('of two straight runs in line is straight', () => {
    const joined = compilePath(joinPaths(straight(0), straight(20), 1).path);
    expect(joined.length).toBeCloseTo(30, 9);
  });

  it('of ends in one place needs no bridge', () => {
    const { path } = joinPaths(straight(0), straight(10), 1);
    expect(path.points).toHaveLength(3);
    expect(compilePath(path).length).toBeCloseTo(20, 9);
  });

  it('of a path with itself closes it', () => {
    const closed = compilePath(closeWithBridge(curved, 1));
    expect(closed.closed).toBe(true);
    expect(findKinks(closed)).toEqual([]);
  });

  it('of a closed path is refused', () => {
    expect(() => joinPaths(ofBasis('bezier', true), curved, 1)).toThrow(/is closed: it has no end to join/);
  });
});

it('closing makes one of a last point that stands on the first, and opening takes the last piece away', () => {
  const square = [0, 1, 2, 3, 0].map((i) => ({
    position: [
      [0, 0, 0],
      [4, 0, 0],
      [4, 0, 4],
      [0, 0, 4],
    ][i] as Vec3,
  }));
  const closed = closePath(pathOf({ basis: 'polyline', points: square }));
  expect(closed.points).toHaveLength(4);
  expect(compilePath(closed).length).toBeCloseTo(16, 12);
  expect(compilePath(openPath(closed)).length).toBeCloseTo(12, 12);
});

describe('moving', () => {
  const path = ofBasis('bezier', true);
  const length = compilePath(path).length;
  const move = { pivot: [1, 2, 3] as Vec3, translation: [4, 0, -2] as Vec3, rotation: turned, scale: 2 };

  it('by the transform or by all points is the same', () => {
    const even = { ...path, transform: { ...path.transform, scale: [2, 2, 2] as Vec3 } };
    const all = new Set(even.points.keys());
    const whole = compilePath(moveWholePath(even, move));
    expect(apart(whole, compilePath(moveSomePoints(even, all, move)))).toBeLessThan(1e-8);
    expect(whole.length).toBeCloseTo(2 * compilePath(even).length, 7);
  });

  it('applying the transform changes nothing but the numbers', () => {
    const applied = applyTransform(path);
    expect(applied.transform.scale).toEqual([1, 1, 1]);
    expect(apart(compilePath(path), compilePath(applied))).toBeLessThan(1e-8);
  });

  it('mirroring twice is nothing, once keeps the length', () => {
    const mirrored = mirrorPath(path, 0, 2);
    const [a, b] = [at(compilePath(path), 3), at(compilePath(mirrored), 3)];
    expect(b[0]).toBeCloseTo(4 - a[0], 9);
    expect(compilePath(mirrored).length).toBeCloseTo(length, 8);
    expect(apart(compilePath(path), compilePath(mirrorPath(mirrored, 0, 2)))).toBeLessThan(1e-8);
  });

  it('lifting raises every place by the height', () => {
    const lifted = compilePath(liftPath(path, 2.5));
    expect(at(lifted, 7)[1]).toBeCloseTo(at(compilePath(path), 7)[1] + 2.5, 9);
  });
});
