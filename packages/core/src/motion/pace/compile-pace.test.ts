import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import type { Pace } from '../../document/shot-pace.js';
import { compilePace } from './compile-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const compiled = (pace: Loose<Pace>, fps = 24, length = 50) =>
  compilePace(paceOf(pace), fps, straight(length));

it('linear keys run at even speed', () => {
  const pace = compiled({
    keys: [
      { frame: 1, value: 0 },
      { frame: 49, value: 16 },
    ],
  });
  expect(pace.distance(25)).toBeCloseTo(8, 12);
  expect(pace.speed(25)).toBeCloseTo(8, 12);
  expect(pace.speed(1)).toBeCloseTo(8, 12);
  expect(pace.speed(49)).toBeCloseTo(8, 12);
});

it('before the first and after the last key the rider is held', () => {
  const pace = compiled({
    keys: [
      { frame: 10, value: 3 },
      { frame: 20, value: 9 },
    ],
  });
  expect([pace.distance(-5), pace.distance(99)]).toEqual([3, 9]);
  expect([pace.speed(9), pace.speed(21)]).toEqual([0, 0]);
});

it('hold stays until the next key', () => {
  const pace = compiled({
    keys: [
      { frame: 1, value: 2, ease: 'hold' },
      { frame: 11, value: 7 },
      { frame: 21, value: 12 },
    ],
  });
  expect(pace.distance(10.99)).toBe(2);
  expect(pace.speed(5)).toBe(0);
  expect(pace.distance(11)).toBe(7);
});

it('two smooth keys leave and arrive at rest, fastest half-way', () => {
  const pace = compiled({
    keys: [
      { frame: 0, value: 0, ease: 'smooth' },
      { frame: 24, value: 10 },
    ],
  });
  expect(pace.speed(0)).toBeCloseTo(0, 12);
  expect(pace.distance(12)).toBeCloseTo(5, 12);
  // 3u² − 2u³ has slope 3/2 in the middle: 15 m/s over one second.
  expect(pace.speed(12)).toBeCloseTo(15, 12);
});

it('smooth meets the speed of its linear neighbours', () => {
  const keys = [
    { frame: 0, value: 0 },
    { frame: 24, value: 6, ease: 'smooth' as const },
    { frame: 48, value: 14 },
    { frame: 72, value: 18 },
  ];
  const pace = compiled({ keys });
  expect(pace.speed(24)).toBeCloseTo(6, 12);
  expect(pace.speed(48 - 1e-9)).toBeCloseTo(4, 6);
});

it('laps are worth the length of the path', () => {
  const pace = compiled(
    {
      unit: 'laps',
      keys: [
        { frame: 0, value: 0 },
        { frame: 24, value: 2 },
      ],
    },
    24,
    50,
  );
  expect(pace.distance(12)).toBeCloseTo(50, 12);
  expect(pace.speed(6)).toBeCloseTo(100, 12);
});

it('without keys the rider stands at the start', () => {
  const pace = compiled({ start: { frame: 1, value: 4 } });
  expect([pace.distance(1), pace.distance(100), pace.speed(50)]).toEqual([4, 4, 0]);
});

it('smooth keys never overshoot nor turn back, and their speed is the slope of their distance', () => {
  const keys = fc.array(
    fc.tuple(fc.integer({ min: 1, max: 40 }), fc.double({ min: 0, max: 30, noNaN: true })),
    { minLength: 2, maxLength: 8 },
  );
  fc.assert(
    fc.property(keys, (steps) => {
      let [frame, value] = [0, 0];
      const built = steps.map(([frames, rise]) => ({
        frame: (frame += frames),
        value: (value += rise),
        ease: 'smooth' as const,
      }));
      const pace = compiled({ keys: built });
      let before = built[0].value;
      let back = 0;
      let off = 0;
      for (let f = built[0].frame; f <= frame; f += 0.25) {
        back = Math.max(back, before - pace.distance(f));
        before = pace.distance(f);
        const slope = (pace.distance(f + 1e-5) - pace.distance(f - 1e-5)) / 2e-5;
        const isKey = built.some((key) => Math.abs(key.frame - f) < 1e-3);
        if (!isKey) off = Math.max(off, Math.abs(pace.speed(f) - slope * 24));
      }
      expect(back).toBeLessThan(1e-9);
      expect(off).toBeLessThan(1e-3);
      expect(before).toBeLessThanOrEqual(value + 1e-9);
    }),
  );
});

it('place and speed at once are what they are one by one, whoever was asked before', () => {
  const keys = [
    { frame: 0, value: 0, ease: 'smooth' as const },
    { frame: 24, value: 10 },
  ];
  const asked = compiled({ keys });
  const one = compiled({ keys });
  const both = new Float64Array(2);
  fc.assert(
    fc.property(fc.double({ min: -10, max: 40, noNaN: true }), (frame) => {
      asked.distance(frame / 2);
      asked.both?.(frame, both);
      expect([both[0], both[1]]).toEqual([one.distance(frame), one.speed(frame)]);
      // Repeats the query that it has just answered.
      expect(asked.distance(frame)).toBe(both[0]);
    }),
  );
  asked.both?.(12, both);
  expect(both[0]).toBeCloseTo(5, 12);
  expect(both[1]).toBeCloseTo(15, 12);
});
