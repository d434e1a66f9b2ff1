import fc from 'fast-check';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { POSE } from '../pose/pose.js';
import { circle, even, line, placeOf, poseAt, runs, shotOf } from '../../../test/shots.js';
import { GRAVITY } from '../../geometry/math/gravity.js';

const RADIUS = 20;
const distance = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

describe('beside a circle', () => {
  /** At 8 m/s along the path; to the left is towards the middle. */
  const beside = (side: number, rise = 0) =>
    evaluateShot(
      shotOf(
        [circle(RADIUS)],
        [
          {
            id: 'r',
            name: 'R',
            body: { node: 'body', rollPerG: 4, settle: 0 },
            attachment: {
              path: 'p',
              pace: even(40, 72),
              offset: { side, rise },
              bank: { mode: 'physical', limit: 90 },
            },
          },
        ],
      ),
      NO_ASSETS,
    );

  it('its speed is that of its own track, v (1 − side / R), which is what it covers', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -15, max: 15, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (side, rise) => {
          const evaluated = beside(side, rise);
          const pose = poseAt(evaluated, 'r', 40);
          expect(pose[POSE.speed]).toBeCloseTo(8 * (1 - side / RADIUS), 6);
          const step = 1e-3;
          const covered = distance(
            placeOf(poseAt(evaluated, 'r', 40 - step)),
            placeOf(poseAt(evaluated, 'r', 40 + step)),
          );
          expect((covered * 24) / (2 * step)).toBeCloseTo(pose[POSE.speed], 4);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('it banks, leans and is pressed by its own track: a = v² / R · (1 − side / R)', () => {
    for (const side of [-10, -3, 0, 4, 12]) {
      const evaluated = beside(side);
      const own = RADIUS - side;
      const speed = (8 * own) / RADIUS;
      const sideways = speed ** 2 / own;
      const [rider] = evaluated.shot.riders;
      expect(poseAt(evaluated, 'r', 40)[POSE.bank]).toBeCloseTo(
        (-Math.atan(sideways / GRAVITY) * 180) / Math.PI,
        5,
      );
      expect(evaluated.sideways(rider)(40)).toBeCloseTo(sideways, 5);
      const roll = evaluated.gauges(rider).find(({ kind }) => kind === 'roll');
      expect(roll?.value(40)).toBeCloseTo((4 * sideways) / GRAVITY, 4);
    }
  });
});

describe('an offset that is keyed', () => {
  const evaluated = evaluateShot(
    shotOf(
      [line(100)],
      [
        {
          id: 'r',
          name: 'R',
          attachment: {
            path: 'p',
            pace: even(0, 16),
            offsetKeys: [
              { frame: 1, side: 0, rise: 0, ease: 'linear' },
              { frame: 97, side: 12, rise: 8 },
            ],
            bank: { mode: 'physical', limit: 90 },
          },
        },
      ],
    ),
    NO_ASSETS,
  );

  it('counts in its speed: along, to the side and up', () => {
    // 16, 12 and 8 m in four seconds.
    expect(poseAt(evaluated, 'r', 50)[POSE.speed]).toBeCloseTo(Math.hypot(4, 3, 2), 9);
  });

  it('does not bank while it goes evenly aside, and banks into the bend of its own track', () => {
    expect(poseAt(evaluated, 'r', 50)[POSE.bank]).toBeCloseTo(0, 6);
    // Smoothly 4 m to the left and back in four seconds at 10 m/s: to the left at first, then to the right.
    const swerve = evaluateShot(
      shotOf(
        [line(100)],
        [
          {
            id: 'r',
            name: 'R',
            attachment: {
              path: 'p',
              pace: even(0, 40),
              offsetKeys: [
                { frame: 1, side: 0 },
                { frame: 49, side: 4 },
                { frame: 97, side: 0 },
              ],
              bank: { mode: 'physical', limit: 90 },
            },
          },
        ],
      ),
      NO_ASSETS,
    );
    const bank = (frame: number) => poseAt(swerve, 'r', frame)[POSE.bank];
    expect(bank(8)).toBeLessThan(-1);
    expect(bank(42)).toBeGreaterThan(1);
    expect(bank(25)).toBeCloseTo(0, 1);
    // The key in the middle does not snap it: it passes from one side of a key to the other without a step.
    expect(Math.abs(bank(49 + 1e-3) - bank(49 - 1e-3))).toBeLessThan(0.02);
  });
});

it('a corner presses sideways as a drive counts it: its turn made evenly over a metre', () => {
  const shot = shotOf(
    [runs([0, 0, 0], [0, 0, 30], [30, 0, 30])],
    [
      {
        id: 'r',
        name: 'R',
        attachment: {
          path: 'p',
          pace: { mode: 'drive', drive: { top: 8, sideways: 4, jerk: null, departs: 'rolling' } },
        },
      },
    ],
    { range: { first: 1, last: 400 } },
  );
  const evaluated = evaluateShot(shot, NO_ASSETS);
  const sideways = evaluated.sideways(shot.riders[0]);
  const values = Array.from({ length: 3991 }, (_, i) => Math.abs(sideways(1 + i / 10)));
  const slowest = Math.min(
    ...Array.from({ length: 300 }, (_, i) => {
      const pose = poseAt(evaluated, 'r', 1 + i);
      return Math.abs(pose[POSE.distance] - 30) < 0.4 ? pose[POSE.speed] : Infinity;
    }),
  );
  // A quarter turn a metre: √(4 / (π / 2)) m/s, at the limit and not beyond.
  expect(slowest).toBeCloseTo(Math.sqrt(4 / (Math.PI / 2)), 2);
  expect(Math.max(...values)).toBeGreaterThan(3.95);
  expect(Math.max(...values)).toBeLessThan(4 * 1.001);
});
