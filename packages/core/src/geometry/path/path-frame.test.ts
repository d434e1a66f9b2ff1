import { quat, vec3 } from 'gl-matrix';
import { newShot } from '../../document/new-shot.js';
import type { Quat, Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import type { CompiledPath } from './compiled-path.js';

function through(places: readonly Vec3[], closed: boolean, rolls: readonly number[] = []): CompiledPath {
  const points = places.map((position, i) => ({ position, roll: rolls[i] ?? 0 }));
  return compilePath(
    newShot({ name: 't', paths: [{ id: 'p', name: 'P', basis: 'through', closed, points }] }).paths[0],
  );
}

const helix = through(
  Array.from({ length: 33 }, (_, i) => [4 * Math.cos(i / 2.5), 0.4 * i, 4 * Math.sin(i / 2.5)] as Vec3),
  false,
);
/** A loop of a roller coaster: straight in, over the top, straight out. */
const loop = through(
  [
    [0, 0, -20],
    [0, 0, -8],
    [0.3, 0, 0],
    [0.6, 5, 5],
    [1, 10, 0],
    [1.4, 5, -5],
    [1.7, 0, 0],
    [2, 0, 8],
    [2, 0, 20],
  ],
  false,
);
/** A trefoil knot, closed. */
const knot = through(
  Array.from({ length: 24 }, (_, i) => {
    const t = (2 * Math.PI * i) / 24;
    return [
      3 * (Math.sin(t) + 2 * Math.sin(2 * t)),
      3 * Math.sin(3 * t),
      3 * (Math.cos(t) - 2 * Math.cos(2 * t)),
    ] as Vec3;
  }),
  true,
);

const frameOf = (path: CompiledPath, s: number, reference: 'world' | 'path') => {
  const out = new Float64Array(12);
  path.frame(s, out, 0, reference);
  return out;
};
const leftOf = (path: CompiledPath, s: number): Vec3 => [...frameOf(path, s, 'path').subarray(3, 6)] as Vec3;

/** Steps of the integration in each segment; curvature jumps from one segment to the next. */
const STEPS = 600;

/**
 * The frame carried by plain integration of v′ = −(v·t′) t with t′ from the curve itself, by the
 * fourth-order Runge-Kutta method in very many steps: where, and the left vector there, by segment end.
 */
function integrated(path: CompiledPath, from: Vec3): { s: number; left: Vec3 }[] {
  const bend: Vec3 = [0, 0, 0];
  const tangent: Vec3 = [0, 0, 0];
  const result = [{ s: 0, left: from }];
  let v: Vec3 = [...from];
  const moved = (k: Vec3, by: number): Vec3 => vec3.scaleAndAdd([0, 0, 0], v, k, by) as Vec3;
  for (let i = 0; i < path.segments.count; i++) {
    const start = path.segmentStart(i);
    const end = path.segmentStart(i + 1);
    const hair = (end - start) * 1e-9;
    const rate = (s: number, at: Vec3): Vec3 => {
      const inside = Math.min(end - hair, Math.max(start + hair, s));
      path.curvatureVector(inside, bend);
      path.tangent(inside, tangent);
      return vec3.scale([0, 0, 0], tangent, -vec3.dot(at, bend)) as Vec3;
    };
    const h = (end - start) / STEPS;
    for (let n = 0; n < STEPS; n++) {
      const s = start + n * h;
      const k1 = rate(s, v);
      const k2 = rate(s + h / 2, moved(k1, h / 2));
      const k3 = rate(s + h / 2, moved(k2, h / 2));
      const k4 = rate(s + h, moved(k3, h));
      v = v.map((value, k) => value + (h / 6) * (k1[k] + 2 * k2[k] + 2 * k3[k] + k4[k])) as Vec3;
      if (n % 200 === 199) result.push({ s: s + h, left: [...v] });
    }
  }
  return result;
}

describe('the twist-free frame', () => {
  it.each([
    ['helix', helix],
    ['loop', loop],
  ])('on a %s is that of a fine integration within 1e-4 rad', (_, path) => {
    for (const { s, left } of integrated(path, leftOf(path, 0))) {
      expect(vec3.distance(leftOf(path, Math.min(s, path.length * (1 - 1e-12))), left)).toBeLessThan(1e-4);
    }
  });

  it('on a closed knot is the integrated one with what it misses spread evenly along the length', () => {
    const first = leftOf(knot, 0);
    const free = integrated(knot, first);
    const end = free[free.length - 1].left;
    const tangent: Vec3 = [0, 0, 0];
    knot.tangent(0, tangent);
    const missing = Math.atan2(vec3.dot(vec3.cross([0, 0, 0], end, first), tangent), vec3.dot(end, first));
    expect(Math.abs(missing)).toBeGreaterThan(0.01);
    for (const { s, left } of free) {
      knot.tangent(s, tangent);
      const turn = quat.setAxisAngle([0, 0, 0, 1], tangent, (missing * s) / knot.length) as Quat;
      const expected = vec3.transformQuat([0, 0, 0], left, turn);
      expect(vec3.distance(leftOf(knot, Math.min(s, knot.length * (1 - 1e-12))), expected)).toBeLessThan(
        1e-4,
      );
    }
  });

  it('meets itself at the seam of a closed path', () => {
    expect(vec3.distance(leftOf(knot, 0), leftOf(knot, knot.length * (1 - 1e-12)))).toBeLessThan(1e-6);
  });

  it('is continuous through a corner', () => {
    const corner = compilePath(
      newShot({
        name: 't',
        paths: [
          {
            id: 'p',
            name: 'P',
            basis: 'polyline',
            points: [
              { position: [0, 0, 0] },
              { position: [0, 0, 5] },
              { position: [0, 5, 5] },
              { position: [5, 5, 5] },
            ],
          },
        ],
      }).paths[0],
    );
    // Up round a corner, then away to the side: left stays at the first, and turns with the second.
    expect(vec3.distance(leftOf(corner, 4), [1, 0, 0])).toBeLessThan(1e-12);
    expect(vec3.distance(leftOf(corner, 7), [1, 0, 0])).toBeLessThan(1e-12);
    expect(vec3.distance(leftOf(corner, 12), [0, -1, 0])).toBeLessThan(1e-12);
  });
});

describe('the world frame', () => {
  it('goes over the top of a loop without a flip', () => {
    let before = frameOf(loop, 0, 'world');
    for (let i = 1; i <= 2_000; i++) {
      const now = frameOf(loop, (loop.length * i) / 2_000, 'world');
      const turn = Math.acos(
        Math.min(
          1,
          vec3.dot(before.subarray(3, 6) as unknown as Vec3, now.subarray(3, 6) as unknown as Vec3),
        ),
      );
      expect(turn).toBeLessThan(0.1);
      before = now;
    }
  });
});

describe('roll', () => {
  const straight: Vec3[] = [
    [0, 0, 0],
    [0, 0, 1],
    [0, 0, 10],
  ];

  it('of a positive angle takes the right side down', () => {
    const path = through(straight, false, [30, 30, 30]);
    const up = frameOf(path, 5, 'world').subarray(6, 9);
    // Left is +X, so the right side going down tips up towards −X.
    expect(up[0]).toBeCloseTo(-Math.sin(Math.PI / 6), 12);
    expect(up[1]).toBeCloseTo(Math.cos(Math.PI / 6), 12);
  });

  it('runs evenly by arc length from point to point, whatever their spacing', () => {
    const path = through(straight, false, [0, 10, 100]);
    for (const [s, degrees] of [
      [0.5, 5],
      [1, 10],
      [4, 40],
      [10, 100],
    ])
      expect((path.rollAt(s) * 180) / Math.PI).toBeCloseTo(degrees, 6);
  });

  it('is carried round the seam of a closed path', () => {
    const ring: Vec3[] = [0, 1, 2, 3].map((i) => [
      5 * Math.cos((i * Math.PI) / 2),
      0,
      5 * Math.sin((i * Math.PI) / 2),
    ]);
    const path = through(ring, true, [0, 0, 0, 40]);
    expect((path.rollAt((path.length * 7) / 8) * 180) / Math.PI).toBeCloseTo(20, 6);
    expect(path.rollAt(path.length)).toBeCloseTo(0, 12);
  });

  it('is added in either reference', () => {
    const plain = through(straight, false);
    const rolled = through(straight, false, [20, 20, 20]);
    for (const reference of ['world', 'path'] as const) {
      const a = frameOf(plain, 3, reference).subarray(6, 9) as unknown as Vec3;
      const b = frameOf(rolled, 3, reference).subarray(6, 9) as unknown as Vec3;
      expect(vec3.dot(a, b)).toBeCloseTo(Math.cos(Math.PI / 9), 12);
    }
  });
});

describe('position and forward alone', () => {
  const pathOf = (more: object) =>
    compilePath(newShot({ name: 't', paths: [{ id: 'p', name: 'P', ...more }] }).paths[0]);
  const places: Vec3[] = [
    [0, 0, 0],
    [3, 1, 4],
    [9, -2, 5],
    [12, 0, -3],
    [4, 6, -8],
    [-2, 1, -6],
  ];
  const stop = { handles: 'corner', in: [0, 0, 0], out: [2, 1, 0] };
  const paths: [string, CompiledPath][] = [
    ['level', helix],
    ['steep', loop],
    ['closed', knot],
    [
      'rational',
      pathOf({
        basis: 'nurbs',
        degree: 3,
        points: places.map((position, i) => ({ position, weight: 1 + i })),
      }),
    ],
    [
      'of the fifth degree',
      pathOf({ basis: 'bspline', degree: 5, points: places.map((position) => ({ position })) }),
    ],
    [
      'that halts at each point',
      pathOf({ basis: 'bezier', points: places.map((position) => ({ position, ...stop })) }),
    ],
  ];

  it.each(paths)('are those of the place on a path %s', (_, path) => {
    const way = new Float64Array(13);
    const [position, tangent]: Vec3[] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    const [from, to] = [-0.2 * path.length, 1.2 * path.length];
    for (let i = 0; i <= 400; i++) {
      const s = i < 7 ? path.pointDistances[i % path.pointDistances.length] : from + ((to - from) * i) / 400;
      path.way(s, way, 1);
      path.position(s, position);
      path.tangent(s, tangent);
      const far = 1e-12 * path.length;
      for (let k = 0; k < 3; k++) {
        expect(Math.abs(way[1 + k] - position[k])).toBeLessThan(far);
        expect(Math.abs(way[10 + k] - tangent[k])).toBeLessThan(1e-9);
      }
    }
    expect(way[0]).toBe(0);
  });
});
