import { camera, rider } from '../../../test/riders.js';
import { circle, even, line, shotOf } from '../../../test/shots.js';
import { newShot } from '../../document/new-shot.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { POSE } from '../../motion/pose/pose.js';
import { withRider, poseOfRider } from './change-rider.js';
import { holdDistance } from './hold-distance.js';

const NOTHING = NO_ASSETS;
const beside = { ...line(60), id: 'q', name: 'Q', transform: { translation: [6, 0, 0] as const } };

function gaps(shot: ReturnType<typeof shotOf>) {
  const evaluated = evaluateShot(shot, NOTHING);
  return Array.from({ length: 97 }, (_, i) => {
    const [a, b] = ['c', 'r'].map((id) => poseOfRider(evaluated, id, 1 + i));
    return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  });
}

const filming = (pace: object, path = 'q', offset = {}) => ({
  ...camera({ path, offset, pace }),
  id: 'c',
  badge: 'C2',
});

it('a camera beside what it films keeps level with it, as far off as it was', () => {
  const shot = shotOf([line(60), beside as never], [rider({ pace: even(0, 40) }), filming(even(8, 10))]);
  const held = holdDistance(evaluateShot(shot, NOTHING), 'c', 'r', 1);
  // 8 m on and 6 m aside: 10 m, and the same at every frame of a steady ride.
  expect(held?.distance).toBeCloseTo(10, 12);
  expect(held?.missed).toBeLessThan(1e-9);
  expect(held?.rider.attachment?.pace.keys.length).toBeLessThan(4);
  const now = withRider(shot, 'c', (before) => held?.rider ?? before);
  expect(newShot({ ...now })).toEqual(now);
  for (const gap of gaps(now)) expect(Math.abs(gap - 10)).toBeLessThan(0.011);
});

it('on a ring of its own, in laps and beside its path, and from the middle of the range', () => {
  const ring = { ...circle(30, true), id: 'q', name: 'Q' };
  const pace = { unit: 'laps' as const, ...even(0.7, 0.9) };
  const shot = shotOf(
    [circle(20, true), ring],
    [rider({ pace: even(0, 90) }), filming(pace, 'q', { side: 2 })],
  );
  const held = holdDistance(evaluateShot(shot, NOTHING), 'c', 'r', 49);
  const was = gaps(shot)[48];
  expect(held?.distance).toBeCloseTo(was, 9);
  const now = withRider(shot, 'c', (before) => held?.rider ?? before);
  for (const gap of gaps(now)) expect(Math.abs(gap - was)).toBeLessThan(0.02 + (held?.missed ?? 0));
  expect(held?.missed).toBeLessThan(1e-6);
  expect(now.riders[1].attachment?.pace.unit).toBe('laps');
});

it('where its path ends it waits, and says by how much it misses', () => {
  const short = { ...line(20), id: 'q', name: 'Q', transform: { translation: [6, 0, 0] as const } };
  const shot = shotOf([line(60), short as never], [rider({ pace: even(0, 40) }), filming(even(8, 10))]);
  const held = holdDistance(evaluateShot(shot, NOTHING), 'c', 'r', 1);
  // At its end it is 20 m behind, 6 m aside.
  expect(held?.missed).toBeCloseTo(Math.hypot(20, 6) - 10, 6);
  const now = withRider(shot, 'c', (before) => held?.rider ?? before);
  const end = poseOfRider(evaluateShot(now, NOTHING), 'c', 97);
  expect(end[POSE.distance]).toBeCloseTo(20, 6);
});

it('one that took its time from what it films has its own from then on', () => {
  const echo = {
    ...filming(even(8, 10)),
    attachment: { path: 'q', pacedBy: { rider: 'r', delay: 24, rate: 1 } },
  };
  const shot = shotOf([line(60), beside as never], [rider({ pace: even(0, 40) }), echo]);
  const held = holdDistance(evaluateShot(shot, NOTHING), 'c', 'r', 49);
  // It comes a second after: 10 m behind and 6 m aside.
  expect(held?.distance).toBeCloseTo(Math.hypot(10, 6), 9);
  expect(held?.rider.attachment?.pacedBy).toBeNull();
  const now = withRider(shot, 'c', (before) => held?.rider ?? before);
  gaps(now).forEach((gap, i) =>
    // For the first second it would have to be before the start of its path.
    i >= 24 ? expect(Math.abs(gap - Math.hypot(10, 6))).toBeLessThan(0.011) : expect(gap).toBeLessThan(11.7),
  );
});
