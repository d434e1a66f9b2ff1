import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import { newShot } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';
import { PathError } from './path-error.js';
import { reversePath } from '../reshape/reverse.js';
import { SegmentList } from './segments-cubic.js';

function pathOf(parts: Loose<ShotPath>): ShotPath {
  return newShot({ name: 't', paths: [{ id: 'p', name: 'P', ...parts }] }).paths[0];
}
const compiled = (parts: Loose<ShotPath>): CompiledPath => compilePath(pathOf(parts));
const through = (points: Vec3[], more: Loose<ShotPath> = {}) =>
  compiled({ basis: 'through', points: points.map((position) => ({ position })), ...more });
const at = (path: CompiledPath, s: number): Vec3 => {
  const out: Vec3 = [0, 0, 0];
  path.position(s, out);
  return out;
};

/** Length along a path from s0 to s1 by many short chords, extrapolated: knows nothing of the tables. */
function walked(path: CompiledPath, s0: number, s1: number, n = 4096): number {
  const chords = (count: number) => {
    let sum = 0;
    for (let i = 0; i < count; i++) {
      sum += distance3(at(path, s0 + ((s1 - s0) * i) / count), at(path, s0 + ((s1 - s0) * (i + 1)) / count));
    }
    return sum;
  };
  // Chords fall short by a term in 1/n².
  return (4 * chords(2 * n) - chords(n)) / 3;
}

/** Adaptive Simpson, for reference lengths of curves given by their speed. */
function simpson(f: (u: number) => number, a: number, b: number, n = 20_000): number {
  const h = (b - a) / n;
  let sum = f(a) + f(b);
  for (let i = 1; i < n; i++) sum += f(a + i * h) * (i % 2 === 1 ? 4 : 2);
  return (sum * h) / 3;
}

describe('length', () => {
  it('of straight runs is the sum of distances', () => {
    const path = compiled({
      basis: 'polyline',
      closed: true,
      points: [
        [0, 0, 0],
        [3, 0, 0],
        [3, 4, 0],
      ].map((position) => ({ position: position as Vec3 })),
    });
    expect(path.length).toBeCloseTo(12, 13);
  });

  it('of a parabola is its closed form', () => {
    // y = x² from 0 to 2 as a cubic: handles at thirds of the quadratic's.
    const path = compiled({
      points: [
        { position: [0, 0, 0], out: [2 / 3, 0, 0] },
        { position: [2, 0, 4], in: [-2 / 3, 0, -8 / 3] },
      ],
    });
    const exact = Math.sqrt(17) + Math.asinh(4) / 4;
    expect(Math.abs(path.length - exact) / exact).toBeLessThan(1e-12);
  });

  it('of a cubic agrees with fine integration of its speed', () => {
    const path = compiled({
      points: [
        { position: [0, 0, 0], out: [5, 9, 0] },
        { position: [3, 0, 7], in: [4, -6, 1] },
      ],
    });
    const exact = simpson(
      (u) => {
        const v = [0, 1, 2].map((k) => {
          const p = [
            [0, 0, 0],
            [5, 9, 0],
            [7, -6, 8],
            [3, 0, 7],
          ].map((point) => point[k]);
          return 3 * ((1 - u) ** 2 * (p[1] - p[0]) + 2 * u * (1 - u) * (p[2] - p[1]) + u * u * (p[3] - p[2]));
        });
        return Math.hypot(...v);
      },
      0,
      1,
    );
    expect(Math.abs(path.length - exact) / exact).toBeLessThan(1e-11);
  });

  it('of a curve with a cusp, where the speed is nought, is still right', () => {
    // x = ±(1 − 2u)³-like there and back: handles crossed so that r′ vanishes at u = ½.
    const path = compiled({
      points: [
        { position: [0, 0, 0], out: [1, 0, 1] },
        { position: [1, 0, 0], in: [-1, 0, 1] },
      ],
    });
    const speed = (u: number) => Math.hypot(3 * (1 - 2 * u) ** 2, 3 * (1 - 2 * u));
    expect(Math.abs(path.length - simpson(speed, 0, 0.5) - simpson(speed, 0.5, 1))).toBeLessThan(1e-9);
  });
});

describe('distance', () => {
  const points = fc.array(fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: -40, max: 40 }))), {
    minLength: 3,
    maxLength: 9,
  });

  it('is what was travelled, however the points are spaced', () => {
    fc.assert(
      fc.property(
        points,
        fc.boolean(),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (places, closed, part) => {
          const distinct = places.filter((p, i) => i === 0 || distance3(p, places[i - 1]) > 0) as Vec3[];
          fc.pre(distinct.length >= 3 && distance3(distinct[0], distinct[distinct.length - 1]) > 0);
          const path = through(distinct, { closed });
          const end = part * path.length;
          // The reference itself walks in 65,536 chords, good to about 1e-6 where the path turns on the spot.
          expect(Math.abs(walked(path, 0, end, 1 << 15) - end)).toBeLessThan(2e-5 * path.length);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('in equal steps gives equal steps on unevenly spaced points', () => {
    const path = through([
      [0, 0, 0],
      [1, 0, 0.2],
      [1.5, 0, 1],
      [20, 0, 3],
      [21, 4, 30],
    ]);
    const step = path.length / 200;
    const steps = Array.from({ length: 200 }, (_, i) => walked(path, i * step, (i + 1) * step, 64));
    for (const length of steps) expect(Math.abs(length - step)).toBeLessThan(1e-9 * path.length);
  });

  it('runs on for laps on a closed path, and is held on an open one', () => {
    const square: Vec3[] = [
      [0, 0, 0],
      [1, 0, 0],
      [1, 0, 1],
      [0, 0, 1],
    ];
    const loop = compiled({
      basis: 'polyline',
      closed: true,
      points: square.map((position) => ({ position })),
    });
    expect(at(loop, 9.5)[0]).toBeCloseTo(1, 12);
    expect(at(loop, 9.5)[2]).toBeCloseTo(0.5, 12);
    expect(at(loop, -0.25)[2]).toBeCloseTo(0.25, 12);
    const open = compiled({ basis: 'polyline', points: square.map((position) => ({ position })) });
    expect(at(open, 99)).toEqual([0, 0, 1]);
    expect(at(open, -1)).toEqual([0, 0, 0]);
  });

  it('along a handle of no length is exact', () => {
    // One handle missing: r′ is nought at the start, so u grows as the root of s.
    const path = compiled({ points: [{ position: [0, 0, 0] }, { position: [0, 0, 9], in: [0, 0, -3] }] });
    expect(path.length).toBeCloseTo(9, 9);
    for (const s of [1e-6, 0.01, 1, 4.5, 8.99]) expect(Math.abs(at(path, s)[2] - s)).toBeLessThan(9e-9);
    const tangent: Vec3 = [0, 0, 0];
    path.tangent(0, tangent);
    expect(tangent).toEqual([0, 0, 1]);
  });
});

describe('bases', () => {
  it.each([0, 0.5, 1])('a through path of alpha %d passes its points, in their order', (alpha) => {
    const points: Vec3[] = [
      [0, 0, 0],
      [4, 1, 2],
      [5, 0, 9],
      [-2, 0, 11],
    ];
    const path = through(points, { alpha });
    let from = 0;
    for (const point of points) {
      // The nearest place, found by halving steps around the best of many.
      let best = from;
      for (let s = from; s <= path.length; s += path.length / 2000) {
        if (distance3(at(path, s), point) < distance3(at(path, best), point)) best = s;
      }
      for (let step = path.length / 2000; step > 1e-9; step /= 2) {
        for (const s of [best - step, best + step]) {
          if (distance3(at(path, s), point) < distance3(at(path, best), point)) best = s;
        }
      }
      expect(distance3(at(path, best), point)).toBeLessThan(1e-6);
      expect(best).toBeGreaterThanOrEqual(from);
      from = best;
    }
  });

  it('points switched off are skipped', () => {
    const path = pathOf({
      basis: 'polyline',
      points: [{ position: [0, 0, 0] }, { position: [5, 5, 5], off: true }, { position: [0, 0, 2] }],
    });
    expect(compilePath(path).length).toBeCloseTo(2, 13);
  });

  it('the path transform scales, turns and moves', () => {
    const half = Math.SQRT1_2;
    const path = compiled({
      basis: 'polyline',
      points: [{ position: [0, 0, 0] }, { position: [0, 0, 1] }],
      transform: { translation: [10, 0, 0], rotation: [0, half, 0, half], scale: [1, 1, 3] },
    });
    // A quarter turn to the left about Y takes +Z to +X.
    expect(distance3(at(path, 3), [13, 0, 0])).toBeLessThan(1e-12);
  });

  it('automatic handles on even points of a line keep to the line', () => {
    const path = compiled({
      points: [0, 1, 2].map((z) => ({ position: [0, 0, z * 5], handles: 'auto' as const })),
    });
    expect(path.length).toBeCloseTo(10, 10);
  });

  it.each([
    ['one point', { points: [{ position: [0, 0, 0] as Vec3 }] }, /1 of the 2 points/],
    ['all in one place', { points: [1, 2, 3].map(() => ({ position: [1, 1, 1] as Vec3 })) }, /no length/],
    ['all off', { points: [1, 2].map((x) => ({ position: [x, 0, 0] as Vec3, off: true })) }, /switched off/],
  ])('refuses %s with a sentence', (_, parts, message) => {
    expect(() => compiled(parts)).toThrow(PathError);
    expect(() => compiled(parts)).toThrow(message);
  });
});

describe('curvature', () => {
  const ring = (turn: 1 | -1) =>
    compiled({
      closed: true,
      points: Array.from({ length: 16 }, (_, i) => {
        const a = (turn * i * Math.PI) / 8;
        const k = (4 / 3) * Math.tan(Math.PI / 32) * 20;
        const out: Vec3 = [turn * k * Math.sin(a), 0, turn * k * Math.cos(a)];
        return {
          position: [-20 * Math.cos(a), 0, 20 * Math.sin(a)] as Vec3,
          out,
          in: out.map((v) => -v) as Vec3,
        };
      }),
    });

  it('is one over the radius: positive to the left, negative to the right', () => {
    for (const s of [1, 20, 77, 125]) {
      expect(ring(1).curvature(s)).toBeCloseTo(1 / 20, 5);
      expect(ring(-1).curvature(s)).toBeCloseTo(-1 / 20, 5);
    }
  });

  it('of a straight run is nought', () => {
    expect(
      compiled({
        basis: 'polyline',
        points: [0, 1].map((x) => ({ position: [x, x, 2 * x] as Vec3 })),
      }).curvature(0.5),
    ).toBe(0);
  });

  it('of a parabola at its vertex is twice its coefficient', () => {
    // z = x² through its vertex, towards +x: it bends towards +z, which is to the right.
    const path = compiled({
      points: [
        { position: [-1, 0, 1], out: [2 / 3, 0, -4 / 3] },
        { position: [1, 0, 1], in: [-2 / 3, 0, -4 / 3] },
      ],
    });
    expect(path.curvature(path.length / 2)).toBeCloseTo(-2, 9);
  });
});

describe('derivatives', () => {
  const segments = new SegmentList();
  // x = u³, y = u², z = u.
  segments.addBezier([0, 0, 0], [0, 0, 1 / 3], [0, 1 / 3, 2 / 3], [1, 1, 1]);
  const cubic = segments.build();

  it.each([
    [1, [0.75, 1, 1]],
    [2, [3, 2, 0]],
    [3, [6, 0, 0]],
  ] as const)('of order %d are exact', (order, expected) => {
    const out: Vec3 = [0, 0, 0];
    if (order === 1) cubic.velocity(0, 0.5, out);
    else cubic.derivative(0, 0.5, order, out);
    out.forEach((value, k) => expect(value).toBeCloseTo(expected[k], 14));
  });
});

describe('reversed', () => {
  it('a path is the same curve from the other end, its marks where they were', () => {
    const path = pathOf({
      closed: true,
      points: [
        { position: [0, 0, 0], in: [0, 0, -2], out: [0, 1, 3] },
        { position: [6, 1, 4], in: [-3, 0, 1], out: [1, 0, 2] },
        { position: [2, 0, 9], in: [4, 0, 0], out: [-2, 0, 0] },
      ],
      marks: [{ id: 'm', name: 'M', distance: 3 }],
    });
    const before = compilePath(path);
    const back = reversePath(path, before.length);
    const after = compilePath(back);
    expect(after.length).toBeCloseTo(before.length, 9);
    for (const s of [0, 1, 5, 11])
      expect(distance3(at(after, s), at(before, before.length - s))).toBeLessThan(1e-7);
    expect(distance3(at(after, back.marks[0].distance), at(before, 3))).toBeLessThan(1e-7);
    expect(reversePath(back, before.length)).toEqual(path);
  });
});

it('points too near to each other to be told apart leave no hole at the end of the path', () => {
  const near: Vec3[] = [
    [0, 0, 0],
    [0, 0, 9],
    [1e-12, 0, 9],
    [1.0000000000000002e-12, 0, 9],
  ];
  for (const basis of ['through', 'polyline', 'bspline'] as const) {
    const points = near.map((position) => ({ position }));
    const [path] = newShot({ name: 't', paths: [{ id: 'p', name: 'P', basis, points }] }).paths;
    const curve = compilePath(path);
    const end: Vec3 = [0, 0, 0];
    curve.position(curve.length, end);
    expect(end).toEqual([0, 0, 9].map((v) => expect.closeTo(v, 9)));
  }
});
