import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import type { SpeedKey } from '../../document/shot-pace.js';
import { compilePace } from './compile-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const bySpeed = (speeds: Loose<SpeedKey>[], more: object = {}, track = straight(1e4)) =>
  compilePace(paceOf({ mode: 'speed', speeds, start: { frame: 0, value: 0 }, ...more }), 24, track);

it('even acceleration for ten seconds is s = v₀ t + ½ a t²', () => {
  const [v, a] = [2, 1.5];
  const pace = bySpeed([
    { frame: 0, speed: v, ease: 'linear' },
    { frame: 240, speed: v + 10 * a },
  ]);
  for (let t = 0; t <= 10; t += 0.25) {
    expect(Math.abs(pace.distance(24 * t) - (v * t + (a * t * t) / 2))).toBeLessThan(1e-9);
    expect(pace.speed(24 * t)).toBeCloseTo(v + a * t, 10);
  }
  expect(pace.acceleration(100)).toBeCloseTo(a, 10);
});

it('a speed goes on beyond its keys, and a negative one drives back', () => {
  const pace = bySpeed([{ frame: 10, speed: -3 }], { start: { frame: 10, value: 50 } });
  expect(pace.distance(34)).toBeCloseTo(47, 12);
  expect(pace.distance(-14)).toBeCloseTo(53, 12);
});

it('a smooth change of speed covers what its mean does', () => {
  const pace = bySpeed([
    { frame: 0, speed: 0, ease: 'smooth' },
    { frame: 48, speed: 8 },
  ]);
  // 3u² − 2u³ has the mean ½.
  expect(pace.distance(48)).toBeCloseTo(8, 12);
  expect(pace.acceleration(0)).toBeCloseTo(0, 12);
});

it('a speed that is a straight line over distance grows as the exponential it is', () => {
  const [v, w, d] = [2, 10, 40];
  const k = (w - v) / d;
  for (const sign of [1, -1]) {
    const pace = bySpeed(
      [
        { distance: 0, speed: sign * v, ease: 'linear' },
        { distance: d, speed: sign * w },
      ],
      { start: { frame: 0, value: sign > 0 ? 0 : d } },
    );
    for (let t = 0; t < Math.log(w / v) / k; t += 0.1) {
      const exact = sign > 0 ? (v / k) * (Math.exp(k * t) - 1) : (w * Math.exp(-k * t) - v) / k;
      expect(Math.abs(pace.distance(24 * t) - exact) / d).toBeLessThan(1e-9);
    }
  }
});

it('by distance, a rider has the speed asked for at its place, at any time', () => {
  const keys = fc.array(
    fc.tuple(fc.double({ min: 1, max: 40, noNaN: true }), fc.double({ min: 0.2, max: 30, noNaN: true })),
    {
      minLength: 1,
      maxLength: 6,
    },
  );
  fc.assert(
    fc.property(keys, fc.constantFrom('linear', 'smooth', 'hold'), fc.boolean(), (steps, ease, closed) => {
      let place = 0;
      const speeds = steps.map(([far, speed]) => ({ distance: (place += far), speed, ease }) as SpeedKey);
      const pace = bySpeed(speeds, {}, straight(300, closed));
      let last = pace.distance(0);
      expect(last).toBeCloseTo(0, 9);
      for (let frame = 1; frame < 200; frame += 1.7) {
        // The distance driven is the integral of the speed: Simpson's rule in small steps.
        const from = frame - 1.7;
        let sum = 0;
        for (let k = 0; k <= 200; k++) {
          sum += pace.speed(Math.max(0, from + (1.7 * k) / 200)) * (k === 0 || k === 200 ? 1 : k % 2 ? 4 : 2);
        }
        const driven = frame < 1.7 ? NaN : (sum * 1.7) / 200 / 3 / 24;
        const now = pace.distance(frame);
        if (!Number.isNaN(driven))
          expect(Math.abs(now - last - driven)).toBeLessThan(ease === 'hold' ? 0.02 : 1e-4);
        last = now;
      }
    }),
    { numRuns: 40 },
  );
});

it('on a closed path speeds by distance hold in every lap', () => {
  const pace = bySpeed(
    [
      { distance: 10, speed: 8, ease: 'smooth' },
      { distance: 60, speed: 2, ease: 'smooth' },
    ],
    {},
    straight(100, true),
  );
  let lap = 0;
  while (pace.distance(lap) < 100) lap++;
  let [low, high] = [lap - 1, lap];
  for (let k = 0; k < 50; k++) {
    const middle = (low + high) / 2;
    if (pace.distance(middle) < 100) low = middle;
    else high = middle;
  }
  for (let frame = 0; frame < 2 * high; frame += 7.3) {
    expect(pace.distance(frame + high)).toBeCloseTo(pace.distance(frame) + 100, 7);
    expect(pace.speed(frame + high)).toBeCloseTo(pace.speed(frame), 7);
  }
});

it('standing by distance is refused with the reason, and so is turning round', () => {
  expect(() =>
    bySpeed([
      { distance: 0, speed: 5 },
      { distance: 10, speed: 0 },
    ]),
  ).toThrow(/speeds\[1\]\.speed.*0 m\/s.*never comes to the next place/s);
  expect(() =>
    bySpeed([
      { distance: 0, speed: 5 },
      { distance: 10, speed: -1 },
    ]),
  ).toThrow(/sign of the first/);
});
