import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { quat, vec3 } from 'gl-matrix';
import { newShot, type Loose } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { nearestToPoint } from '../../geometry/path/nearest.js';
import {
  beginRiddenPathAt,
  joinRiddenPaths,
  openRiddenPath,
  reverseRiddenPath,
  splitRiddenPath,
} from './change-ridden-path.js';
import { POSE } from '../../motion/pose/pose.js';

const places: Vec3[] = [
  [0, 0, 0],
  [6, 1, 2],
  [9, 0, 9],
  [2, 3, 13],
  [-5, 0, 10],
  [-7, 1, 3],
];
const offset = { along: 0.7, side: 1.2, rise: 0.4, yaw: 20, pitch: -10, roll: 15 };
const keys = [
  { frame: 1, value: 0.1, ease: 'smooth' as const },
  { frame: 30, value: 0.4, ease: 'hold' as const },
  { frame: 50, value: 0.2, ease: 'linear' as const },
  { frame: 81, value: 0.45 },
];
const riders: Loose<Rider>[] = [
  { id: 'laps', name: 'Laps', attachment: { path: 'p', offset, pace: { unit: 'laps', keys } } },
  {
    id: 'metres',
    name: 'Metres',
    attachment: { path: 'p', offset, pace: { keys: keys.map((key) => ({ ...key, value: 20 * key.value })) } },
  },
  {
    id: 'own',
    name: 'Own frame',
    attachment: { path: 'p', offset, facing: { reference: 'path' }, pace: { unit: 'laps', keys } },
  },
  {
    id: 'side',
    name: 'Sideways',
    attachment: { path: 'p', facing: { forward: '-x', up: '+z' }, pace: { unit: 'laps', keys } },
  },
  {
    id: 'kept',
    name: 'Kept',
    attachment: { path: 'p', offset, facing: { mode: 'keep' }, pace: { unit: 'laps', keys } },
  },
  { id: 'still', name: 'Still', attachment: { path: 'p', pace: { unit: 'laps', start: { value: 0.3 } } } },
];

function shotOf(basis: 'bezier' | 'through' | 'polyline' | 'bspline', closed: boolean): Shot {
  return newShot({
    name: 't',
    range: { first: 1, last: 81 },
    paths: [
      {
        id: 'p',
        name: 'P',
        basis,
        closed,
        points: places.map((position, i) => ({
          position,
          in: [-1, 0.2, -0.5],
          out: [1.4, 0, 0.6],
          handles: 'corner' as const,
          roll: basis === 'bspline' ? 0 : 10 * i - 20,
        })),
        marks: [{ id: 'm', name: 'M', distance: 5 }],
      },
      { id: 'q', name: 'Q', basis: 'polyline', points: [{ position: [20, 0, 0] }, { position: [20, 2, 9] }] },
    ],
    riders: [
      ...riders,
      { id: 'other', name: 'Other', attachment: { path: 'q', offset, pace: { unit: 'laps', keys } } },
    ],
  });
}

/** The most that any rider is elsewhere or turned otherwise at any frame, metres and sines of half angles. */
function moved(before: Shot, after: Shot): number {
  const [a, b] = [before, after].map((shot) =>
    evaluateShot(parseShot(JSON.parse(JSON.stringify(shot))), NO_ASSETS),
  );
  const [p, q] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
  let most = 0;
  for (let frame = 1; frame <= 81; frame++) {
    for (let i = 0; i < before.riders.length; i++) {
      a.poses[i](frame, p, 0);
      b.poses[i](frame, q, 0);
      const [turnA, turnB] = [p, q].map((pose) => [...pose.subarray(3, 7)] as Quat);
      const between = quat.multiply([0, 0, 0, 1], quat.conjugate([0, 0, 0, 1], turnA), turnB);
      most = Math.max(
        most,
        vec3.distance([...p.subarray(0, 3)] as Vec3, [...q.subarray(0, 3)] as Vec3),
        Math.hypot(between[0], between[1], between[2]),
      );
    }
  }
  return most;
}

describe.each(['bezier', 'through', 'polyline', 'bspline'] as const)(
  'riders of a %s path are where they were',
  (basis) => {
    it.each([false, true])('when it is reversed (closed: %s)', (closed) => {
      const shot = shotOf(basis, closed);
      const after = reverseRiddenPath(shot, 'p');
      expect(moved(shot, after)).toBeLessThan(2e-6);
      expect(after.riders[0].attachment?.offset.yaw).toBe(-160);
      expect(moved(shot, reverseRiddenPath(after, 'p'))).toBeLessThan(2e-6);
    });

    it('when it begins at another point', () => {
      const shot = shotOf(basis, true);
      const after = beginRiddenPathAt(shot, 'p', 2);
      expect(moved(shot, after)).toBeLessThan(2e-6);
      // Within the first lap, so that nothing counts from below nought.
      expect(after.riders[0].attachment?.pace.keys[0].value).toBeGreaterThanOrEqual(0);
    });

    it('but for where they start, when they are to start there too', () => {
      const shot = shotOf(basis, true);
      const after = beginRiddenPathAt(shot, 'p', 2, true);
      const [before, begun] = [shot, after].map(({ riders }) => riders[0].attachment!.pace.keys);
      expect(begun[0].value).toBe(0);
      begun.forEach((key, i) => {
        expect(key.frame).toBe(before[i].frame);
        expect(key.value - begun[0].value).toBeCloseTo(before[i].value - before[0].value, 9);
      });
    });

    it('when it is opened where none of them passes', () => {
      const whole = shotOf(basis, true);
      // The twist-free frame of an open path has no seam to close, and so is another one.
      const shot = { ...whole, riders: whole.riders.filter(({ id }) => id !== 'own') };
      const { length } = evaluateShot(shot, NO_ASSETS).paths.get('p') as { length: number };
      expect(moved(shot, openRiddenPath(shot, 'p', length * 0.8))).toBeLessThan(2e-6);
    });

    it('when it is cut behind or before them', () => {
      const shot = shotOf(basis, false);
      const { length } = evaluateShot(shot, NO_ASSETS).paths.get('p') as { length: number };
      const before = splitRiddenPath(shot, 'p', length * 0.75);
      expect(moved(shot, before.shot)).toBeLessThan(2e-6);
      expect(before.shot.riders[0].attachment?.path).toBe('p');
      const behind = splitRiddenPath(shot, 'p', length * 0.03);
      expect(moved(shot, behind.shot)).toBeLessThan(2e-6);
      expect(behind.shot.riders[0].attachment?.path).toBe(behind.secondId);
    });

    it.each([
      ['end', 'start'],
      ['end', 'end'],
      ['start', 'start'],
      ['start', 'end'],
    ] as const)('when its %s is joined to the %s of another', (first, second) => {
      const shot = shotOf(basis, false);
      const after = joinRiddenPaths(shot, 'p', 'q', { first, second });
      expect(after.paths).toHaveLength(1);
      expect(after.riders.every((rider) => rider.attachment?.path === 'p')).toBe(true);
      expect(moved(shot, after)).toBeLessThan(2e-6);
      // It goes the way the first one went.
      const wayAt = (one: Shot, place: readonly number[]) => {
        const curve = evaluateShot(one, NO_ASSETS).paths.get('p') as CompiledPath;
        const { distance } = nearestToPoint(curve, place as Vec3);
        const way: Vec3 = [0, 0, 0];
        curve.tangent(distance, way);
        return way;
      };
      const middle: Vec3 = [0, 0, 0];
      const own = evaluateShot(shot, NO_ASSETS).paths.get('p') as CompiledPath;
      own.position(own.length / 2, middle);
      const [was, is] = [shot, after].map((one) => wayAt(one, middle));
      expect(was[0] * is[0] + was[1] * is[1] + was[2] * is[2]).toBeGreaterThan(0.99);
    });
  },
);

it('on a reversed path riders that are turned with it run it from the other end, mirrored in time', () => {
  const shot = newShot({
    name: 't',
    range: { first: 1, last: 81 },
    paths: [{ id: 'p', name: 'P', basis: 'through', points: places.map((position) => ({ position })) }],
    riders: [
      {
        id: 'r',
        name: 'R',
        attachment: {
          path: 'p',
          pace: {
            unit: 'laps',
            keys: [
              { frame: 1, value: 0 },
              { frame: 81, value: 1 },
            ],
          },
        },
      },
    ],
  });
  const [a, b] = [shot, reverseRiddenPath(shot, 'p', true)].map(
    (one) => evaluateShot(one, NO_ASSETS).poses[0],
  );
  const [p, q] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
  for (let frame = 1; frame <= 81; frame++) {
    a(frame, p, 0);
    b(82 - frame, q, 0);
    expect(vec3.distance([...p.subarray(0, 3)] as Vec3, [...q.subarray(0, 3)] as Vec3)).toBeLessThan(1e-6);
  }
});

it('stops, zones and speeds of a pace go with the path', () => {
  const shot = newShot({
    name: 't',
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 10] }] },
    ],
    riders: [
      {
        id: 'r',
        name: 'R',
        attachment: {
          path: 'p',
          pace: {
            speeds: [
              { distance: 2, speed: 3 },
              { distance: 8, speed: 5 },
            ],
            drive: { stops: [{ distance: 4, seconds: 1 }], zones: [{ from: 1, to: 3, speed: 2 }] },
          },
        },
      },
    ],
  });
  const pace = reverseRiddenPath(shot, 'p').riders[0].attachment?.pace;
  expect(pace?.speeds).toMatchObject([
    { distance: 2, speed: -5 },
    { distance: 8, speed: -3 },
  ]);
  expect(pace?.drive.stops[0].distance).toBeCloseTo(6, 12);
  expect(pace?.drive.zones[0]).toMatchObject({ from: 7, to: 9 });
});
