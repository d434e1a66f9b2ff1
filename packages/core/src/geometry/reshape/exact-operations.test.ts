import fc from 'fast-check';
import { distance3, type Vec3 } from '../math/vec.js';
import { changeBasis } from './change-basis.js';
import { compilePath } from '../path/compile-path.js';
import { deletePoints } from './delete-points.js';
import { deviation } from '../path/deviation.js';
import { insertPoint } from './insert-point.js';
import { reversePath } from './reverse.js';
import { startPathAt, splitPath } from './split-path.js';
import { BASES, apart, at, everyPath, ofBasis, pathOf, places } from '../../../test/paths.js';

describe('inserting on the curve', () => {
  it.each(everyPath)('leaves a %s path (closed: %s) where it is', (basis, closed) => {
    const path = ofBasis(basis, closed);
    const before = compilePath(path);
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (part) => {
        const { path: after, index } = insertPoint(path, part * before.length);
        expect(after.points.length).toBeGreaterThan(path.points.length);
        expect(apart(before, compilePath(after))).toBeLessThan(2e-8);
        expect(distance3(after.points[index].position, path.points[0].position)).toBeGreaterThan(0);
      }),
      { numRuns: 8 },
    );
  });

  it.each(everyPath)('on the first point of a %s path (closed: %s) is refused', (basis, closed) => {
    expect(() => insertPoint(ofBasis(basis, closed), 0)).toThrow(/has a point at 0.00 m already/);
  });

  it('between points of a curve through points, two of which stand in one place, keeps the curve', () => {
    const points = [places[0], places[1], places[1], places[2]].map((position) => ({ position }));
    const path = pathOf({ basis: 'through', points });
    const before = compilePath(path);
    const { path: after } = insertPoint(path, 0.8 * before.length);
    expect(apart(before, compilePath(after))).toBeLessThan(2e-8);
  });

  it('agrees with the pieces before, u for u, to the last digits', () => {
    const path = ofBasis('bezier', false);
    const before = compilePath(path);
    const s = 0.37 * before.length;
    const parameter = before.parameter(s);
    const [i, u] = [Math.floor(parameter), parameter % 1];
    const after = compilePath(insertPoint(path, s).path);
    const [a, b]: Vec3[] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    for (const t of [0, 0.3, 0.8, 1]) {
      before.segments.position(i, u * t, a);
      after.segments.position(i, t, b);
      expect(distance3(a, b)).toBeLessThan(1e-12);
      before.segments.position(i, u + (1 - u) * t, a);
      after.segments.position(i + 1, t, b);
      expect(distance3(a, b)).toBeLessThan(1e-12);
    }
  });
});

describe('a change of basis', () => {
  it.each([
    ['through', 'bezier'],
    ['polyline', 'bezier'],
    ['bspline', 'bezier'],
    ['bezier', 'nurbs'],
    ['through', 'nurbs'],
    ['bspline', 'nurbs'],
    ['polyline', 'bspline'],
  ] as const)('from %s to %s is exact', (from, to) => {
    for (const closed of [false, true]) {
      const path = ofBasis(from, closed);
      const after = changeBasis(path, to, 1);
      expect(after.basis).toBe(to);
      expect(apart(compilePath(path), compilePath(after))).toBeLessThan(2e-8);
    }
  });

  it.each([
    ['nurbs', 'bezier'],
    ['bezier', 'through'],
    ['bezier', 'bspline'],
    ['nurbs', 'polyline'],
  ] as const)('from %s to %s keeps within its tolerance', (from, to) => {
    for (const tolerance of [0.3, 0.02]) {
      const path = ofBasis(from, true);
      const after = changeBasis(path, to, tolerance);
      expect(after.basis).toBe(to);
      expect(deviation(compilePath(path), compilePath(after))).toBeLessThan(tolerance * 1.05);
    }
  });
});

describe('deleting', () => {
  it('a point that was just inserted gives the curve back', () => {
    const path = changeBasis(ofBasis('through', false), 'bezier', 1);
    const before = compilePath(path);
    const { path: more, index } = insertPoint(path, 0.4 * before.length);
    const after = compilePath(deletePoints(more, new Set([index])));
    expect(deviation(before, after)).toBeLessThan(1e-3);
  });

  it('a point of a spline with knots of its own takes a knot along', () => {
    const path = insertPoint(ofBasis('nurbs', false), 5).path;
    const after = deletePoints(path, new Set([2]));
    expect(after.knots).toHaveLength(after.points.length + after.degree + 1);
    expect(compilePath(after).length).toBeGreaterThan(0);
  });
});

describe('splitting', () => {
  it.each(BASES)('a %s path gives two that are the curve together', (basis) => {
    const path = { ...ofBasis(basis, false), marks: [{ id: 'm', name: 'M', distance: 12 }] };
    const before = compilePath(path);
    const cut = 0.45 * before.length;
    const [first, second] = splitPath(path, cut);
    const [a, b] = [compilePath(first), compilePath(second)];
    expect(a.length + b.length).toBeCloseTo(before.length, 7);
    for (const s of [0.1, 0.5, 0.99]) {
      expect(distance3(at(a, s * a.length), at(before, s * a.length))).toBeLessThan(2e-8);
      expect(distance3(at(b, s * b.length), at(before, cut + s * b.length))).toBeLessThan(2e-8);
    }
    const marked = [...first.marks, ...second.marks];
    expect(marked).toHaveLength(1);
  });

  it.each(BASES)('a closed %s path opens where it is cut', (basis) => {
    const path = ofBasis(basis, true);
    const before = compilePath(path);
    const s = 0.3 * before.length;
    for (const closed of [false, true]) {
      const after = compilePath(startPathAt(path, s, closed));
      expect(after.closed).toBe(closed);
      expect(after.length).toBeCloseTo(before.length, 7);
      for (const part of [0, 0.2, 0.7, 0.95])
        expect(distance3(at(after, part * after.length), at(before, s + part * before.length))).toBeLessThan(
          2e-8,
        );
    }
  });
});

it.each(everyPath)('reversing a %s path (closed: %s) keeps the curve and its beginning', (basis, closed) => {
  for (const degree of [2, 3]) {
    const path = ofBasis(basis, closed, { degree });
    const before = compilePath(path);
    const after = compilePath(reversePath(path, before.length));
    for (const part of [0.05, 0.4, 0.8])
      expect(distance3(at(after, part * before.length), at(before, (1 - part) * before.length))).toBeLessThan(
        2e-8,
      );
  }
});
