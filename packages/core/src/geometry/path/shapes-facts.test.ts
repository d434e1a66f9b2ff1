import { distance3, type Vec3 } from '../math/vec.js';
import { arcThrough } from '../reshape/arc-through.js';
import { compilePath } from './compile-path.js';
import { setHandle, setHandlesKind } from '../reshape/handles.js';
import { nearestToPoint, nearestToRay } from './nearest.js';
import { findKinks, pathFacts } from './path-facts.js';
import { shapePath, type Shape } from '../reshape/shapes.js';
import { apart, at, ofBasis, pathOf } from '../../../test/paths.js';

it('an arc through three places passes them, its curvature one over the radius of their circle', () => {
  const [a, b, c]: Vec3[] = [
    [5, 0, 0],
    [0, 3, 4],
    [-5, 0, 0],
  ];
  // All three are on the sphere of radius 5 around the origin and, with it, in one plane: half a circle.
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

  it('of a point that has none, made smooth, are those it would have automatically', () => {
    const bare = setHandlesKind(path, new Set([0]), 'smooth');
    expect(bare.points[0].handles).toBe('smooth');
    expect(Math.hypot(...bare.points[0].out)).toBeGreaterThan(1);
  });

  it('of an automatic point are spelled out as they act, the curve unmoved', () => {
    const automatic = ofBasis('bezier', true);
    const spelled = setHandlesKind(automatic, new Set(automatic.points.keys()), 'corner');
    expect(apart(compilePath(automatic), compilePath(spelled))).toBeLessThan(1e-8);
  });
});
