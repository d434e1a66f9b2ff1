import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import type { Pace } from '../../document/shot-pace.js';
import { compilePace } from './compile-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const keys = [
  { frame: 10, value: 2, ease: 'smooth' as const },
  { frame: 20, value: 7, ease: 'linear' as const },
  { frame: 34, value: 8 },
];
const compiled = (more: Loose<Pace>) => compilePace(paceOf({ keys, ...more }), 24, straight(50));

it.each([
  ['hold', [2, 8]],
  ['run', [2, 8 + 6 / 14]],
  ['repeat', [0, 0]],
  ['accumulate', [0, 0]],
  ['mirror', [0, 0]],
] as const)('%s before and after is what it says', (way, ends) => {
  const pace = compiled({ before: way, after: way });
  for (let frame = 10; frame <= 34; frame += 0.5) {
    const own = pace.distance(frame);
    if (way === 'repeat' && frame < 34) expect(pace.distance(frame + 48)).toBeCloseTo(own, 10);
    if (way === 'accumulate') expect(pace.distance(frame - 24)).toBeCloseTo(own - 6, 10);
    if (way === 'accumulate') expect(pace.distance(frame + 72)).toBeCloseTo(own + 18, 10);
    if (way === 'mirror') expect(pace.distance(68 - frame)).toBeCloseTo(own, 10);
    if (way === 'mirror' && frame < 34)
      expect(pace.speed(68 - frame)).toBeCloseTo(-pace.speed(frame + 1e-9), 5);
  }
  if (way === 'hold' || way === 'run') {
    expect(pace.distance(9)).toBeCloseTo(ends[0], 12);
    // It leaves its last key at the speed it came with: 1 m in 14 frames.
    expect(pace.distance(40)).toBeCloseTo(way === 'hold' ? 8 : 8 + 6 / 14, 12);
  }
});

const variation = (seed: number) => ({ time: 0.4, amount: 0.3, seed });

it('varied cycles differ, are the same for the same seed, and leave the keyed one alone', () => {
  const plain = compiled({ after: 'accumulate' });
  const [one, again, other] = [1, 1, 2].map((seed) =>
    compiled({ after: 'accumulate', variation: variation(seed) }),
  );
  for (let frame = 10; frame <= 34; frame++)
    expect(one.distance(frame)).toBeCloseTo(plain.distance(frame), 12);
  const gains = (pace: typeof one) =>
    [1, 2, 3, 4].map((n) => pace.distance(34 + 24 * n) - pace.distance(10 + 24 * n));
  expect(gains(one)).toEqual(gains(again));
  expect(new Set([...gains(one), ...gains(other)].map((gain) => gain.toFixed(6))).size).toBe(8);
});

it('varied cycles neither jump nor kink, do not turn back, and do not drift away', () => {
  const even = [0, 24].map((frame) => ({ frame, value: frame / 4 }));
  fc.assert(
    fc.property(fc.nat(1e6), fc.constantFrom('accumulate' as const, 'mirror' as const), (seed, after) => {
      const pace = compiled({ keys: even, after, variation: variation(seed) });
      for (let frame = 0.01; frame < 400; frame += 0.73) {
        const h = 1e-3;
        const slope = ((pace.distance(frame + h) - pace.distance(frame - h)) / (2 * h)) * 24;
        // To and fro it turns on the spot; else speed is the slope of place everywhere.
        const turns = Math.sign(pace.speed(frame - h)) !== Math.sign(pace.speed(frame + h));
        if (turns) expect(after).toBe('mirror');
        if (!turns) expect(Math.abs(slope - pace.speed(frame))).toBeLessThan(0.05);
        if (after === 'accumulate') expect(pace.speed(frame)).toBeGreaterThanOrEqual(-1e-9);
      }
      // The borders of cycles stray by no more than half of what is allowed: in time by 0.2, in place by 0.15 of one.
      if (after === 'accumulate')
        expect(Math.abs(pace.distance(480) - 120)).toBeLessThan(6 * (0.2 * 1.5 + 0.15) + 1e-9);
    }),
    { numRuns: 30, examples: [[130028, 'mirror']] },
  );
});

it('what stands still in a cycle stands still in every varied one', () => {
  const stop = [
    { frame: 0, value: 0 },
    { frame: 10, value: 3 },
    { frame: 20, value: 3 },
    { frame: 30, value: 6 },
  ];
  const pace = compiled({ keys: stop, after: 'accumulate', variation: { time: 0, amount: 0.5, seed: 3 } });
  for (const n of [1, 2, 3]) {
    for (const frame of [11, 15, 19]) expect(pace.speed(frame + 30 * n)).toBe(0);
  }
});
