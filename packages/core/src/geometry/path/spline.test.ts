import type { Loose } from '../../document/new-shot.js';
import { newShot } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';

const compiled = (parts: Loose<ShotPath>) =>
  compilePath(newShot({ name: 't', paths: [{ id: 'p', name: 'P', ...parts }] }).paths[0]);
const at = (path: ReturnType<typeof compiled>, s: number): Vec3 => {
  const out: Vec3 = [0, 0, 0];
  path.position(s, out);
  return out;
};

/** Cox-de Boor recursion, straight from the definition: knows nothing of spans or blossoms. */
function basisFunction(knots: readonly number[], i: number, degree: number, t: number): number {
  if (degree === 0) return t >= knots[i] && t < knots[i + 1] ? 1 : 0;
  const left = knots[i + degree] - knots[i];
  const right = knots[i + degree + 1] - knots[i + 1];
  return (
    (left > 0 ? ((t - knots[i]) / left) * basisFunction(knots, i, degree - 1, t) : 0) +
    (right > 0 ? ((knots[i + degree + 1] - t) / right) * basisFunction(knots, i + 1, degree - 1, t) : 0)
  );
}

const half = Math.SQRT1_2;
const corners: [number, number, number][] = [
  [1, 0, 1],
  [1, 1, half],
  [0, 1, 1],
  [-1, 1, half],
  [-1, 0, 1],
  [-1, -1, half],
  [0, -1, 1],
  [1, -1, half],
  [1, 0, 1],
];

describe('a rational circle of nine points', () => {
  const radius = 7;
  const circle = compiled({
    basis: 'nurbs',
    degree: 2,
    closed: true,
    knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
    points: corners.map(([x, z, weight]) => ({ position: [radius * x, 0, radius * z], weight })),
  });

  it('is as long as a circle', () => {
    expect(Math.abs(circle.length - 2 * Math.PI * radius)).toBeLessThan(1e-9);
  });

  it('has the circle’s radius and curvature everywhere, and no torsion', () => {
    for (let s = 0; s < circle.length; s += 0.37) {
      expect(Math.hypot(...at(circle, s))).toBeCloseTo(radius, 12);
      expect(circle.bend(s)).toBeCloseTo(1 / radius, 11);
      expect(Math.abs(circle.torsion(s))).toBe(0);
    }
  });

  it('is travelled at even speed', () => {
    const quarter = at(circle, circle.length / 8);
    expect(distance3(quarter, [radius * half, 0, radius * half])).toBeLessThan(1e-8);
  });
});

describe('a B-spline', () => {
  const places: Vec3[] = [
    [0, 0, 0],
    [4, 1, 1],
    [6, 0, 6],
    [1, 3, 9],
    [-3, 0, 5],
    [-6, 1, 0],
    [-2, 0, -4],
  ];

  it.each([1, 2, 3, 4, 5])('of degree %d is the sum of its basis functions', (degree) => {
    const path = compiled({ basis: 'bspline', degree, points: places.map((position) => ({ position })) });
    const n = places.length;
    const knots = Array.from({ length: n + degree + 1 }, (_, j) =>
      Math.min(n - degree, Math.max(0, j - degree)),
    );
    const out: Vec3 = [0, 0, 0];
    for (const t of [0.01, 0.5, 1, 1.25, n - degree - 0.1].filter((knot) => knot < n - degree)) {
      path.segments.position(Math.floor(t), t - Math.floor(t), out);
      for (let k = 0; k < 3; k++) {
        const expected = places.reduce((sum, p, i) => sum + p[k] * basisFunction(knots, i, degree, t), 0);
        expect(out[k]).toBeCloseTo(expected, 12);
      }
    }
    expect(distance3(at(path, 0), places[0])).toBeLessThan(1e-12);
    expect(distance3(at(path, path.length), places[n - 1])).toBeLessThan(1e-12);
  });

  it.each([2, 3, 4, 5])(
    'closed, of degree %d, meets itself in all derivatives its degree allows',
    (degree) => {
      const path = compiled({
        basis: 'bspline',
        degree,
        closed: true,
        points: places.map((position) => ({ position })),
      });
      const { segments } = path;
      expect(segments.count).toBe(places.length);
      const [a, b]: Vec3[] = [
        [0, 0, 0],
        [0, 0, 0],
      ];
      segments.position(0, 0, a);
      segments.position(segments.count - 1, 1, b);
      expect(distance3(a, b)).toBeLessThan(1e-12);
      segments.velocity(0, 0, a);
      segments.velocity(segments.count - 1, 1, b);
      expect(distance3(a, b)).toBeLessThan(1e-11);
      if (degree > 2) {
        segments.derivative(0, 0, 2, a);
        segments.derivative(segments.count - 1, 1, 2, b);
        expect(distance3(a, b)).toBeLessThan(1e-11);
      }
    },
  );

  it('closed, of degree 3, begins nearest to its first point', () => {
    const path = compiled({
      basis: 'bspline',
      closed: true,
      points: places.map((position) => ({ position })),
    });
    const expected = [0, 1, 2].map((k) => (places[6][k] + 4 * places[0][k] + places[1][k]) / 6) as Vec3;
    expect(distance3(at(path, 0), expected)).toBeLessThan(1e-12);
  });

  it('with fewer points than its degree asks for takes the degree they give', () => {
    const path = compiled({
      basis: 'bspline',
      degree: 5,
      points: places.slice(0, 2).map((position) => ({ position })),
    });
    expect(path.length).toBeCloseTo(distance3(places[0], places[1]), 12);
  });

  it('with a point switched off is the one without it', () => {
    const points = places.map((position, i) => ({ position, off: i === 2 }));
    const without = places.filter((_, i) => i !== 2).map((position) => ({ position }));
    const path = compiled({ basis: 'bspline', points });
    expect(path.length).toBe(compiled({ basis: 'bspline', points: without }).length);
  });
});

it('derivatives of a rational piece are those of its closed form', () => {
  // One weight of 2 in a quadratic: x = 4 u (1 − u) + u², over w = (1 − u)² + 4 u (1 − u) + u².
  const path = compiled({
    basis: 'nurbs',
    degree: 2,
    points: [{ position: [0, 0, 0] }, { position: [1, 0, 0], weight: 2 }, { position: [1, 0, 1] }],
  });
  const x = (u: number) => (4 * u * (1 - u) + u * u) / ((1 - u) ** 2 + 4 * u * (1 - u) + u * u);
  const u = 0.3;
  const out: Vec3 = [0, 0, 0];
  // Central differences with h chosen for each order, good to about 1e-8, 1e-6 and 1e-4.
  path.segments.velocity(0, u, out);
  expect(out[0]).toBeCloseTo((x(u + 1e-5) - x(u - 1e-5)) / 2e-5, 7);
  path.segments.derivative(0, u, 2, out);
  expect(out[0]).toBeCloseTo((x(u + 1e-4) - 2 * x(u) + x(u - 1e-4)) / 1e-8, 5);
  path.segments.derivative(0, u, 3, out);
  const h = 1e-3;
  expect(out[0]).toBeCloseTo((x(u + 2 * h) - 2 * x(u + h) + 2 * x(u - h) - x(u - 2 * h)) / (2 * h ** 3), 3);
});

it('points in one place are no curve, whatever their weights round off', () => {
  const position: Vec3 = [-560738.123456789, 52821.987654321, 2071033.3333333];
  const points = [1, 12.77967453532846, 0.37].map((weight) => ({ position, weight }));
  expect(() => compiled({ basis: 'nurbs', degree: 2, closed: true, points })).toThrow(
    /same place|apart|no length/i,
  );
});
