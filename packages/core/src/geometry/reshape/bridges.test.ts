import type { Loose } from '../../document/new-shot.js';
import { newShot } from '../../document/new-shot.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { compilePath } from '../path/compile-path.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { POSE } from '../../motion/pose/pose.js';
import { suggestBankWindow } from '../../motion/ride/suggest-window.js';
import { poseAt, shotOf } from '../../../test/shots.js';
import {
  bridgeRadius,
  closeWithBridge,
  gentlestBridge,
  joinPaths,
  nearestEnds,
  proposedBridge,
  TENSIONS,
} from './join-paths.js';

const pathOf = (...places: Vec3[]): ShotPath =>
  newShot({
    name: 't',
    paths: [{ id: 'p', name: 'P', basis: 'polyline', points: places.map((position) => ({ position })) }],
  }).paths[0];

it('the nearest ends of two paths are proposed, and of equals those that reverse none', () => {
  const a = pathOf([0, 0, 0], [0, 0, 20]);
  expect(nearestEnds(a, pathOf([3, 0, 24], [3, 0, 60]))).toEqual({ first: 'end', second: 'start' });
  expect(nearestEnds(a, pathOf([3, 0, 60], [3, 0, 24]))).toEqual({ first: 'end', second: 'end' });
  expect(nearestEnds(a, pathOf([2, 0, -1], [9, 0, -40]))).toEqual({ first: 'start', second: 'start' });
  expect(nearestEnds(a, pathOf([9, 0, -40], [2, 0, -1]))).toEqual({ first: 'start', second: 'end' });
  expect(nearestEnds(a, pathOf([10, 0, 20], [10, 0, 0]))).toEqual({ first: 'end', second: 'start' });
});

it('the bridge is as gentle as any, and says how tight it is', () => {
  const cases: [ShotPath, ShotPath][] = [
    [pathOf([0, 0, 0], [0, 0, 20]), pathOf([6, 0, 20], [6, 0, 0])],
    [pathOf([0, 0, 0], [0, 0, 20]), pathOf([4, 1, 26], [30, 1, 26])],
    [pathOf([0, 0, 0], [0, 0, 20]), pathOf([1, 0, 21], [1, 0, 50])],
  ];
  for (const [a, b] of cases) {
    const { tension, radius } = gentlestBridge(a, b);
    for (let trial = TENSIONS.least; trial <= TENSIONS.most; trial *= 1.07)
      expect(bridgeRadius(a, b, trial)!).toBeLessThan(radius! * 1.01);
    // Curvature of the joined curve by an independent method: the circle through three near points.
    const { path, secondStart } = joinPaths(a, b, tension!);
    const curve = compilePath(path);
    const [from, to] = [compilePath(a).length, secondStart];
    let tightest = Infinity;
    const h = (to - from) / 2000;
    for (let s = from + h; s < to - h; s += h) tightest = Math.min(tightest, circleThrough(curve, s, h));
    expect(tightest / radius!).toBeCloseTo(1, 1);
  }
});

function circleThrough(curve: ReturnType<typeof compilePath>, s: number, h: number): number {
  const at = (x: number): Vec3 => {
    const place: Vec3 = [0, 0, 0];
    curve.position(x, place);
    return place;
  };
  const [p, q, r] = [at(s - h), at(s), at(s + h)];
  const [a, b, c] = [
    [q, r],
    [p, r],
    [p, q],
  ].map(([u, v]) => Math.hypot(u[0] - v[0], u[1] - v[1], u[2] - v[2]));
  const half = (a + b + c) / 2;
  const area = Math.sqrt(Math.max(0, half * (half - a) * (half - b) * (half - c)));
  return area > 1e-12 ? (a * b * c) / (4 * area) : Infinity;
}

it('the bridge that is proposed is short, and no tighter than the path itself', () => {
  // Three sides of a rounded field, whose corners have 6 m of radius.
  const corner = (x: number, z: number, from: number): Vec3[] =>
    Array.from({ length: 9 }, (_, i) => {
      const a = ((from + (90 * i) / 8) * Math.PI) / 180;
      return [x - 6 * Math.cos(a), 0, z + 6 * Math.sin(a)];
    });
  const places: Vec3[] = [
    [0, 0, 0],
    [0, 0, 10],
    ...corner(6, 14, 0),
    ...corner(18, 14, 90),
    [24, 0, 10],
    [24, 0, 0],
  ];
  const [path] = newShot({
    name: 't',
    paths: [{ id: 'p', name: 'P', basis: 'through', points: places.map((position) => ({ position })) }],
  }).paths;
  const own = compilePath(path);
  let tightest = Infinity;
  for (let s = 0.05; s < own.length - 0.05; s += 0.02)
    tightest = Math.min(tightest, circleThrough(own, s, 0.02));
  const { tension, radius } = proposedBridge(path, path);
  expect(radius!).toBeGreaterThan(0.98 * tightest);
  const closed = compilePath(closeWithBridge(path, tension!));
  // Half a circle over the 24 m would be 37.7 m.
  expect(closed.length - own.length).toBeLessThan(1.6 * 37.7);
  const gentle = compilePath(closeWithBridge(path, gentlestBridge(path, path).tension!));
  expect(closed.length).toBeLessThan(gentle.length);
});

it('over straight ends it is about half a circle', () => {
  const a = pathOf([0, 0, 0], [0, 0, 20]);
  const b = pathOf([6, 0, 20], [6, 0, 0]);
  const { tension, radius } = proposedBridge(a, b);
  expect(radius!).toBeGreaterThan(1.99);
  const { secondStart } = joinPaths(a, b, tension!);
  expect(secondStart - 20).toBeLessThan(1.5 * 3 * Math.PI);
});

it('ends in one place want no bridge', () => {
  expect(gentlestBridge(pathOf([0, 0, 0], [0, 0, 5]), pathOf([0, 0, 5], [5, 0, 5]))).toEqual({
    tension: null,
    radius: null,
  });
});

describe('the smoothing that is offered for a bank', () => {
  /** A round of 60 m radius through two hundred points that stray by so much. */
  const round = (stray: number): Loose<ShotPath> => ({
    id: 'p',
    name: 'P',
    basis: 'through',
    closed: true,
    points: Array.from({ length: 200 }, (_, i) => {
      const a = (2 * Math.PI * i) / 200;
      const reach = 60 + stray * Math.sin(i * i * 1.7 + 3 * i);
      return { position: [reach * Math.cos(a), 0, reach * Math.sin(a)] as Vec3 };
    }),
  });
  const windowFor = (stray: number, speed: number) =>
    suggestBankWindow(compilePath(shotOf([round(stray)], []).paths[0]), 'world', speed);

  it('leaves no wobble on two hundred points with jitter', () => {
    for (const [stray, speed] of [
      [0.02, 8],
      [0.05, 12],
      [0.1, 10],
    ]) {
      const window = windowFor(stray, speed);
      const shot = shotOf(
        [round(stray)],
        [
          {
            id: 'r',
            name: 'R',
            attachment: {
              path: 'p',
              bank: { mode: 'physical', limit: 60, window },
              pace: {
                keys: [
                  { frame: 1, value: 0 },
                  { frame: 481, value: speed * 20 },
                ],
              },
            },
          },
        ],
        { range: { first: 1, last: 481 } },
      );
      const evaluated = evaluateShot(shot, NO_ASSETS);
      // No more alternating turns of over two degrees within half a second.
      const banks = Array.from({ length: 440 }, (_, i) => poseAt(evaluated, 'r', 20 + i)[POSE.bank]);
      for (let i = 0; i + 12 < banks.length; i++) {
        const part = banks.slice(i, i + 13);
        const [first, last] = [part[0], part[12]];
        const out = Math.max(...part) - Math.max(first, last);
        const under = Math.min(first, last) - Math.min(...part);
        expect(Math.min(out, 2.01)).toBeLessThan(2);
        expect(Math.min(under, 2.01)).toBeLessThan(2);
      }
    }
  });

  it('is short on a smooth path, and longer the rougher the path and the faster the ride', () => {
    expect(windowFor(0, 10)).toBe(1);
    expect(windowFor(0.1, 10)).toBeGreaterThan(windowFor(0.02, 10));
    expect(windowFor(0.05, 14)).toBeGreaterThanOrEqual(windowFor(0.05, 7));
  });
});
