import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import fc from 'fast-check';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Bank } from '../../document/shot-attachment.js';
import type { ShotPath } from '../../document/shot-path.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { softLimit } from '../../geometry/math/soft-limit.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { GRAVITY } from '../../geometry/math/gravity.js';
import { POSE } from '../pose/pose.js';

const radians = Math.PI / 180;

/** A circle about the origin that turns left (from +Z to +X) or right, as nine rational control vertices. */
function circle(radius: number, way: 1 | -1): Loose<ShotPath> {
  const points = Array.from({ length: 9 }, (_, i) => {
    const reach = i % 2 === 0 ? radius : radius * Math.SQRT2;
    const a = (way * i * Math.PI) / 4;
    return {
      position: [-way * reach * Math.cos(a), 0, way * reach * Math.sin(a)] as Vec3,
      weight: i % 2 === 0 ? 1 : Math.SQRT1_2,
    };
  });
  const knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4];
  return { id: 'p', name: 'P', basis: 'nurbs', degree: 2, knots, points };
}

/** A straight of 40 m along +Z, a half circle to the left of 10 m radius, a straight back. */
const bend: Loose<ShotPath> = {
  id: 'p',
  name: 'P',
  basis: 'nurbs',
  degree: 2,
  knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
  points: (
    [
      [0, 0, 1],
      [0, 20, 1],
      [0, 40, 1],
      [0, 50, Math.SQRT1_2],
      [10, 50, 1],
      [20, 50, Math.SQRT1_2],
      [20, 40, 1],
      [20, 20, 1],
      [20, 0, 1],
    ] as const
  ).map(([x, z, weight]) => ({ position: [x, 0, z] as Vec3, weight })),
};

/** The bank in radians by distance at a constant speed, m/s. */
function bankOn(path: Loose<ShotPath>, bank: Loose<Bank>, speed: number) {
  const shot = newShot({
    name: 't',
    fps: 10,
    range: { first: 0, last: 1 },
    paths: [path],
    riders: [
      {
        id: 'r',
        name: 'R',
        attachment: {
          path: 'p',
          bank,
          pace: {
            keys: [
              { frame: -1e4, value: -speed * 1e3 },
              { frame: 1e4, value: speed * 1e3 },
            ],
          },
        },
      },
    ],
  });
  const pose = new Float64Array(POSE.size);
  const [at] = evaluateShot(shot, NO_ASSETS).poses;
  return (distance: number) => {
    at((10 * distance) / speed, pose, 0);
    return pose[POSE.bank] * radians;
  };
}

it.each([1, -1] as const)(
  'on a circle at constant speed it is the angle of balance, into the turn (%s)',
  (way) => {
    for (const [radius, speed] of [
      [20, 8],
      [55, 12.5],
      [8, 3],
    ]) {
      const bank = bankOn(circle(radius, way), { mode: 'physical' }, speed);
      const expected = -way * Math.atan(speed ** 2 / radius / GRAVITY);
      for (const part of [0.2, 0.37, 0.5, 0.81]) {
        expect(Math.abs(bank(part * 2 * Math.PI * radius) - expected)).toBeLessThan(1e-6);
      }
    }
  },
);

it('by amount it is so many degrees at a radius of 10 m, whatever the speed', () => {
  for (const speed of [1, 30]) {
    const bank = bankOn(circle(20, 1), { mode: 'amount', amount: 12 }, speed);
    expect(bank(40)).toBeCloseTo(-6 * radians, 9);
  }
});

it('on a straight it is zero; it begins before the bend, evenly about it, and without a corner', () => {
  const window = 6;
  const bank = bankOn(bend, { mode: 'amount', amount: 20, window, limit: 90 }, 5);
  const full = -20 * radians;
  for (const s of [5, 20, 40 - window / 2 - 1.5]) expect(Math.abs(bank(s))).toBeLessThan(1e-12);
  for (const s of [40 + window / 2 + 1.5, 55, 66]) expect(bank(s)).toBeCloseTo(full, 8);
  // Half of it where the bend begins, and as much before as is missing after.
  expect(bank(40)).toBeCloseTo(full / 2, 3);
  for (const d of [0.5, 1, 2]) expect(bank(40 - d) + bank(40 + d)).toBeCloseTo(full, 3);
  // Continuous in its rate too: from one centimetre to the next the rate changes by little.
  const rate = (s: number) => (bank(s + 0.01) - bank(s)) / 0.01;
  for (let s = 36; s < 44; s += 0.01) expect(Math.abs(rate(s + 0.01) - rate(s))).toBeLessThan(0.01);
});

it('a corner of straight runs counts for the turn it makes', () => {
  const corner: Loose<ShotPath> = {
    id: 'p',
    name: 'P',
    basis: 'polyline',
    points: [
      [0, 0, 0],
      [0, 0, 30],
      [30, 0, 30],
    ].map((position) => ({ position: position as Vec3 })),
  };
  const bank = bankOn(corner, { mode: 'amount', amount: 1, window: 8, limit: 180 }, 5);
  let sum = 0;
  for (let s = 20; s < 40; s += 0.01) sum += bank(s) * 0.01;
  // The area under the lean is the turn of a quarter circle, at one degree for each 0.1 /m.
  expect(sum).toBeCloseTo((-Math.PI / 2) * 10 * radians, 4);
});

it('up a helix only the level part of the bend counts', () => {
  // Radius 10 m, 20 m of rise a turn; the curvature is R / (R² + c²), all of it level.
  const points = Array.from({ length: 97 }, (_, i) => {
    const a = (i * Math.PI) / 24;
    return { position: [-10 * Math.cos(a), (20 * a) / (2 * Math.PI), 10 * Math.sin(a)] as Vec3 };
  });
  const bank = bankOn({ id: 'p', name: 'P', basis: 'through', points }, { mode: 'physical' }, 6);
  const c = 20 / (2 * Math.PI);
  expect(bank(100)).toBeCloseTo(-Math.atan((36 * 10) / (100 + c * c) / GRAVITY), 3);
});

it('the limit is soft: nothing changes well within it, and nothing passes it', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -4, max: 4, noNaN: true }),
      fc.double({ min: 0.01, max: 3, noNaN: true }),
      (x, limit) => {
        const y = softLimit(x, limit);
        expect(Math.abs(y)).toBeLessThanOrEqual(limit);
        if (Math.abs(x) <= 0.9 * limit) expect(y).toBe(x);
        expect(y * x).toBeGreaterThanOrEqual(0);
        // Never steeper than what it limits, and never falling.
        const step = softLimit(x + 1e-3, limit) - y;
        expect(step).toBeGreaterThanOrEqual(0);
        expect(step).toBeLessThanOrEqual(1e-3 + 1e-12);
      },
    ),
  );
});

it('roll of the points is added to the bank', () => {
  const path = circle(20, 1);
  const rolled = { ...path, points: path.points?.map((point) => ({ ...point, roll: 25 })) };
  const lean = (of: Loose<ShotPath>, mode: Bank['mode']) => {
    const shot = newShot({
      name: 't',
      paths: [of],
      riders: [
        {
          id: 'r',
          name: 'R',
          attachment: { path: 'p', bank: { mode, amount: 10 }, pace: { start: { value: 30 } } },
        },
      ],
    });
    const pose = new Float64Array(POSE.size);
    evaluateShot(shot, NO_ASSETS).poses[0](1, pose, 0);
    // How far the left side is up: the second entry of the first column of the rotation.
    const [x, y, z, w] = pose.subarray(3, 7);
    return Math.asin(2 * (x * y + z * w));
  };
  expect(lean(rolled, 'amount')).toBeCloseTo(lean(path, 'amount') + 25 * radians, 6);
  expect(lean(rolled, 'none')).toBeCloseTo(25 * radians, 6);
});

describe('keyed aside while it brakes', () => {
  const straight: Loose<ShotPath> = {
    id: 'p',
    name: 'P',
    basis: 'polyline',
    points: [{ position: [0, 0, 0] }, { position: [0, 0, 200] }],
  };
  const key = (frame: number, side: number) => ({
    frame,
    side,
    along: 0,
    rise: 0,
    yaw: 0,
    pitch: 0,
    roll: 0,
  });
  const shotOf = (path: Loose<ShotPath>, along: 'path' | 'travel', keys: number[][], sides: number[][]) =>
    newShot({
      name: 't',
      range: { first: 1, last: 120 },
      paths: [path],
      riders: [
        {
          id: 'r',
          name: 'R',
          attachment: {
            path: 'p',
            facing: { along },
            bank: { mode: 'physical', limit: 89, window: 0 },
            pace: { keys: keys.map(([frame, value]) => ({ frame, value, ease: 'smooth' as const })) },
            offsetKeys: sides.map(([frame, side]) => key(frame, side)),
          },
        },
      ],
    });
  /** Curvature of its own track seen from above, times its speed squared: by fourth-order differences of its position. */
  const pressed = (at: (frame: number, out: Float64Array, to: number) => void, frame: number) => {
    const h = 0.1;
    const pose = new Float64Array(POSE.size);
    const [a, b, c, d, e] = [-2, -1, 0, 1, 2].map((i) => {
      at(frame + i * h, pose, 0);
      return [pose[0], pose[2]];
    });
    const rate = [0, 1].map((k) => ((a[k] - 8 * b[k] + 8 * d[k] - e[k]) / (12 * h)) * 24);
    const rise = [0, 1].map(
      (k) => ((-a[k] + 16 * b[k] - 30 * c[k] + 16 * d[k] - e[k]) / (12 * h * h)) * 24 * 24,
    );
    const speed = Math.hypot(...rate);
    // Positive to the left of the way it goes: left of +Z is +X.
    return speed < 1e-6 ? 0 : (rise[0] * rate[1] - rise[1] * rate[0]) / speed;
  };
  it.each([
    [
      'a stop',
      straight,
      [
        [1, 0],
        [25, 20],
        [85, 45],
      ],
      [
        [25, 0],
        [73, 3.5],
      ],
    ],
    [
      'to and fro',
      straight,
      [
        [1, 0],
        [50, 6],
        [115, 90],
      ],
      [
        [10, 0],
        [40, 3],
        [70, -2],
        [100, 1],
      ],
    ],
    [
      'backward',
      straight,
      [
        [1, 100],
        [60, 60],
        [115, 20],
      ],
      [
        [20, 0],
        [60, 2],
        [100, 0],
      ],
    ],
    [
      'in a bend',
      circle(30, 1),
      [
        [1, 0],
        [60, 50],
        [110, 70],
      ],
      [
        [20, 0],
        [60, 4],
        [100, -4],
      ],
    ],
    [
      'in a bend, backward',
      circle(30, -1),
      [
        [1, 150],
        [60, 90],
        [110, 70],
      ],
      [
        [20, 0],
        [60, 4],
        [100, -4],
      ],
    ],
  ] as const)('%s: it leans by the bend of its own track, whatever it faces', (_, path, keys, sides) => {
    for (const along of ['path', 'travel'] as const) {
      const evaluated = evaluateShot(shotOf(path, along, keys as never, sides as never), NO_ASSETS);
      const [at] = evaluated.poses;
      const pose = new Float64Array(POSE.size);
      let looked = 0;
      for (let frame = 2; frame < 120; frame++) {
        // Bends of tracks jump at keys.
        if ([...keys, ...sides].some(([key]) => Math.abs(key - frame) < 1)) continue;
        at(frame, pose, 0);
        const [x, y, z, w] = pose.subarray(3, 7);
        const lean = Math.asin(-2 * (x * y + z * w)) / radians;
        // Backward its nose still goes ahead along its path, or it has turned round: its own left is then the other.
        const back = along === 'path' && pose[POSE.speed] < 0 ? -1 : 1;
        const expected = (Math.atan(pressed(at, frame) / GRAVITY) / radians) * back;
        expect(Math.abs(lean - expected)).toBeLessThan(0.1);
        if (Math.abs(expected) > 1) looked++;
      }
      expect(looked).toBeGreaterThan(20);
    }
  });
});
