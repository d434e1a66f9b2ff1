import { quat } from 'gl-matrix';
import fc from 'fast-check';
import { newShot, type Loose } from '../document/new-shot.js';
import type { Basis, ShotPath } from '../document/shot-path.js';
import { distance3, type Quat, type Vec3 } from '../math/vec.js';
import { arcThrough } from './arc-through.js';
import { changeBasis } from './change-basis.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';
import { deletePoints } from './delete-points.js';
import { deviation } from './deviation.js';
import { drapePath } from './drape.js';
import { setHandle, setHandlesKind } from './handles.js';
import { insertPoint } from './insert-point.js';
import { closeWithBridge, joinPaths } from './join-paths.js';
import { keepMarks } from './keep-marks.js';
import { liftPath } from './lift.js';
import { mirrorPath } from './mirror.js';
import { nearestToPoint, nearestToRay } from './nearest.js';
import { offsetSideways } from './offset-sideways.js';
import { closePath, openPath } from './open-close.js';
import { findKinks, pathFacts } from './path-facts.js';
import { resamplePath } from './resample.js';
import { reversePath } from './reverse.js';
import { shapePath, type Shape } from './shapes.js';
import { smoothPath } from './smooth.js';
import { beginAt, splitPath } from './split-path.js';
import { thinPath } from './thin.js';
import { applyTransform, moveSomePoints, moveWholePath } from './transform-path.js';

const pathOf = (parts: Loose<ShotPath>): ShotPath =>
  newShot({ name: 't', paths: [{ id: 'p', name: 'P', ...parts }] }).paths[0];
const at = (path: CompiledPath, s: number): Vec3 => {
  const out: Vec3 = [0, 0, 0];
  path.position(s, out);
  return out;
};
/** How far apart two curves are at equal distances along them: nought only for the same curve run alike. */
function apart(a: CompiledPath, b: CompiledPath, shift = 0): number {
  let most = Math.abs(a.length - b.length);
  for (let i = 0; i <= 200; i++) {
    const s = (a.length * i) / 200;
    if (!a.closed || a.wrap(s) === s) most = Math.max(most, distance3(at(a, s), at(b, s - shift)));
  }
  return most;
}

const places: Vec3[] = [
  [0, 0, 0],
  [6, 1, 2],
  [9, 0, 9],
  [2, 3, 13],
  [-5, 0, 10],
  [-7, 1, 3],
];
const turned = quat.setAxisAngle([0, 0, 0, 1], [0.6, 0.8, 0], 1.1) as Quat;
/** A path of every basis, its transform as crooked as it may be. */
const ofBasis = (basis: Basis, closed: boolean, more: Loose<ShotPath> = {}): ShotPath =>
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
const BASES: Basis[] = ['bezier', 'bspline', 'nurbs', 'through', 'polyline'];
const everyPath = BASES.flatMap((basis) => [false, true].map((closed) => [basis, closed] as const));

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
      const after = compilePath(beginAt(path, s, closed));
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

it('draped, a path is at its height over the ground, and keeps its course in plan', () => {
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

it('an arc through three places passes them, its curvature one over the radius of their circle', () => {
  const [a, b, c]: Vec3[] = [
    [5, 0, 0],
    [0, 3, 4],
    [-5, 0, 0],
  ];
  // All three stand on the sphere of radius 5 around the origin and, with it, in one plane: half a circle.
  const pieces = arcThrough(a, b, c);
  expect(pieces[0][0]).toEqual(a);
  expect(pieces[pieces.length - 1][3]).toEqual(c);
  const length = pieces.length;
  expect(length).toBe(4);
  for (const [p] of pieces) expect(Math.hypot(...p)).toBeCloseTo(5, 12);
  expect(pieces.some(([p]) => distance3(p, b) < 1e-9)).toBe(true);
  expect(arcThrough([0, 0, 0], [0, 0, 1], [0, 0, 3])).toHaveLength(1);
});

describe('ready shapes', () => {
  const compiled = (shape: Shape) => compilePath(shapePath(shape, [1, 2, 3]));
  it.each([
    [{ kind: 'line', length: 8 }, 8],
    [{ kind: 'circle', radius: 5 }, 10 * Math.PI],
    [{ kind: 'helix', radius: 3, turns: 2.5, rise: 2 }, 2.5 * Math.hypot(6 * Math.PI, 2)],
    [{ kind: 'roundedRectangle', width: 10, depth: 6, radius: 1 }, 2 * (8 + 4) + 2 * Math.PI],
    [{ kind: 'roundedRectangle', width: 10, depth: 6, radius: 0 }, 32],
    [{ kind: 'ellipse', width: 8, depth: 8 }, 8 * Math.PI],
  ] as [Shape, number][])('%j is as long as its closed form', (shape, length) => {
    expect(Math.abs(compiled(shape).length / length - 1)).toBeLessThan(1e-5);
  });

  it('a figure of eight passes its middle twice, the second time over the bridge', () => {
    const eight = compiled({ kind: 'eight', length: 20, width: 8, bridge: 3 });
    expect(distance3(at(eight, 0), [1, 2, 3])).toBeLessThan(1e-12);
    expect(distance3(at(eight, eight.length / 2), [1, 5, 3])).toBeLessThan(1e-6);
    expect(findKinks(eight)).toEqual([]);
  });

  it('a circle turns to the left', () => {
    expect(compiled({ kind: 'circle', radius: 5 }).curvature(2)).toBeCloseTo(0.2, 3);
  });
});

describe('facts', () => {
  it('of an ellipse: its tightest radius is b²/a, at the ends of its long axis', () => {
    const { tightest, kinks } = pathFacts(
      compilePath(shapePath({ kind: 'ellipse', width: 20, depth: 10 }, [0, 0, 0])),
    );
    expect(tightest?.radius).toBeCloseTo(2.5, 2);
    expect(kinks).toEqual([]);
  });

  it('of a helix: curvature r/(r²+c²), and its whole climb', () => {
    const helix = compilePath(shapePath({ kind: 'helix', radius: 4, turns: 2, rise: 6 }, [0, 0, 0]));
    const c = 6 / (2 * Math.PI);
    expect(helix.bend(7)).toBeCloseTo(4 / (16 + c * c), 3);
    expect(pathFacts(helix).climb).toBeCloseTo(12, 9);
  });

  it('of the twisted cubic (u, u², u³): its torsion is 3 / (9u⁴ + 9u² + 1)', () => {
    const cubic = compilePath(
      pathOf({
        points: [
          { position: [0, 0, 0], out: [1 / 3, 0, 0] },
          { position: [1, 1, 1], in: [-1 / 3, -2 / 3, -1] },
        ],
      }),
    );
    for (const s of [0, 0.4, 1.1, 1.6]) {
      const u = at(cubic, s)[0];
      expect(cubic.torsion(s)).toBeCloseTo(3 / (9 * u ** 4 + 9 * u ** 2 + 1), 9);
    }
  });

  it('of straight runs: a kink at each corner with its angle, and no bend', () => {
    const path = compilePath(
      pathOf({
        basis: 'polyline',
        points: (
          [
            [0, 0, 0],
            [0, 0, 3],
            [3, 0, 6],
            [3, 0, 7],
          ] as Vec3[]
        ).map((position) => ({ position })),
      }),
    );
    const { kinks, tightest, unevenness } = pathFacts(path);
    expect(kinks.map(({ angleDeg }) => angleDeg)).toEqual([expect.closeTo(45, 9), expect.closeTo(45, 9)]);
    expect(kinks[1].distance).toBeCloseTo(3 + Math.SQRT2 * 3, 9);
    expect(tightest).toBeNull();
    expect(unevenness).toBeCloseTo(3 * Math.SQRT2, 9);
  });

  it('the nearest place to a point or a ray is found by its distance along the path', () => {
    const circle = compilePath(shapePath({ kind: 'circle', radius: 10 }, [0, 0, 0]));
    const near = nearestToPoint(circle, [-12 * Math.SQRT1_2, 0, 12 * Math.SQRT1_2]);
    expect(near.distance).toBeCloseTo((10 * Math.PI) / 4, 4);
    expect(near.gap).toBeCloseTo(2, 4);
    const seen = nearestToRay(circle, [0, 20, 10], [0, -1, 0]);
    expect(seen.distance).toBeCloseTo((10 * Math.PI) / 2, 4);
    expect(seen.gap).toBeLessThan(1e-4);
  });
});

describe('handles', () => {
  const path = pathOf({
    points: [
      { position: [0, 0, 0] },
      { position: [0, 0, 5], in: [0, 0, -2], out: [0, 0, 1], handles: 'smooth' },
      { position: [0, 0, 9] },
    ],
  });

  it('of a smooth point turn together and keep their lengths', () => {
    expect(setHandle(path, 1, 'out', [3, 0, 0]).points[1]).toMatchObject({ in: [-2, 0, 0], out: [3, 0, 0] });
  });

  it('of a symmetric point mirror each other, of a corner stand alone', () => {
    const symmetric = setHandlesKind(path, new Set([1]), 'symmetric');
    expect(symmetric.points[1]).toMatchObject({ in: [0, 0, -1.5], out: [0, 0, 1.5] });
    expect(setHandle(symmetric, 1, 'in', [0, 2, 0]).points[1].out).toEqual([0, -2, 0]);
    const corner = setHandlesKind(path, new Set([1]), 'corner');
    expect(setHandle(corner, 1, 'in', [0, 2, 0]).points[1].out).toEqual([0, 0, 1]);
  });

  it('of an automatic point are spelled out as they act, the curve unmoved', () => {
    const automatic = ofBasis('bezier', true);
    const spelled = setHandlesKind(automatic, new Set(automatic.points.keys()), 'corner');
    expect(apart(compilePath(automatic), compilePath(spelled))).toBeLessThan(1e-8);
  });
});

it('marks stay where they stood when the shape is changed', () => {
  const path = { ...ofBasis('through', false), marks: [{ id: 'm', name: 'M', distance: 14 }] };
  const after = keepMarks(path, thinPath(path, 0.05));
  expect(distance3(at(compilePath(path), 14), at(compilePath(after), after.marks[0].distance))).toBeLessThan(
    0.06,
  );
});
