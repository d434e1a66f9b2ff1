import fc from 'fast-check';
import type { Pace } from '../../document/shot-pace.js';
import {
  startPaceAt,
  drawByHandles,
  insertKey,
  moveKeys,
  quantiseKeys,
  scaleKeys,
  shiftFrom,
  stopAtKey,
  swapEnds,
} from './change-keys.js';
import { compilePace } from './compile-pace.js';
import { timesAsFast, withFrames } from './in-time.js';
import { paceOf, straight } from '../../../test/tracks.js';

const compiled = (pace: Pace) => compilePace(pace, 24, straight(100));
const EASES = ['linear', 'hold', 'smooth', 'handles'] as const;

/** Any keys in order, with handles that reach both too far and not at all. */
const anyPace = fc
  .array(
    fc.record({
      frames: fc.integer({ min: 2, max: 40 }),
      value: fc.double({ min: -30, max: 60, noNaN: true }),
      ease: fc.constantFrom(...EASES),
      reach: fc.double({ min: 0, max: 60, noNaN: true }),
      rise: fc.double({ min: -20, max: 20, noNaN: true }),
    }),
    { minLength: 2, maxLength: 6 },
  )
  .map((steps) => {
    let frame = 0;
    return paceOf({
      keys: steps.map(({ frames, value, ease, reach, rise }) => ({
        frame: (frame += frames),
        value,
        ease,
        in: [-reach, -rise],
        out: [reach, rise],
      })),
    });
  });

it('handles are the Bézier they draw: at its own parameters, place and slope', () => {
  const pace = compiled(
    paceOf({
      keys: [
        { frame: 0, value: 0, ease: 'handles', out: [10, 0] },
        { frame: 40, value: 20, in: [-15, -4] },
      ],
    }),
  );
  for (const u of [0.1, 0.35, 0.5, 0.8]) {
    const bezier = (a: number, b: number, c: number, d: number) =>
      a * (1 - u) ** 3 + 3 * b * u * (1 - u) ** 2 + 3 * c * u * u * (1 - u) + d * u ** 3;
    const slope = (a: number, b: number, c: number, d: number) =>
      3 * ((b - a) * (1 - u) ** 2 + 2 * (c - b) * u * (1 - u) + (d - c) * u * u);
    const frame = bezier(0, 10, 25, 40);
    expect(pace.distance(frame)).toBeCloseTo(bezier(0, 0, 16, 20), 10);
    expect(pace.speed(frame)).toBeCloseTo((slope(0, 0, 16, 20) / slope(0, 10, 25, 40)) * 24, 9);
  }
});

it('each of speed, acceleration and jerk is the slope of the one before, whatever the keys', () => {
  fc.assert(
    fc.property(anyPace, (keys) => {
      const pace = compiled(keys);
      const chain = [pace.distance, pace.speed, pace.acceleration, pace.jerk];
      for (let i = 0; i + 1 < keys.keys.length; i++) {
        const [from, to] = [keys.keys[i].frame, keys.keys[i + 1].frame];
        for (const part of [0.3, 0.7]) {
          const frame = from + (to - from) * part;
          const h = 1e-4 * (to - from);
          for (let k = 0; k < 3; k++) {
            const slope = ((chain[k](frame + h) - chain[k](frame - h)) / (2 * h)) * 24;
            const size = Math.max(1, Math.abs(chain[k + 1](frame)), Math.abs(chain[k](frame)) * 24);
            // Handles that reach nearly over each other turn within a fraction of a frame.
            if (Math.abs(chain[k + 1](frame)) > 1e5) continue;
            expect(Math.abs(slope - chain[k + 1](frame)) / size).toBeLessThan(0.02);
          }
        }
      }
    }),
    { numRuns: 60 },
  );
});

it('time runs forward through handles that reach too far, and none of it is infinite', () => {
  fc.assert(
    fc.property(anyPace, (keys) => {
      const pace = compiled(keys);
      for (let frame = -5; frame < 250; frame += 0.37) {
        expect(Number.isFinite(pace.distance(frame) + pace.speed(frame) + pace.acceleration(frame))).toBe(
          true,
        );
      }
    }),
  );
});

it('a key put in changes nothing of the motion', () => {
  fc.assert(
    fc.property(anyPace, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (keys, part) => {
      const [first, last] = [keys.keys[0].frame, keys.keys[keys.keys.length - 1].frame];
      const more = insertKey(keys, first + (last - first) * part);
      const [a, b] = [compiled(keys), compiled(more)];
      for (let k = 0; k <= 200; k++) {
        const frame = first + ((last - first) * k) / 200;
        expect(b.distance(frame)).toBeCloseTo(a.distance(frame), 6);
      }
    }),
  );
});

it('a stretch drawn by handles is at first the curve it was', () => {
  const keys = paceOf({
    keys: [0, 10, 30, 40].map((frame, i) => ({ frame, value: [0, 4, 25, 30][i], ease: 'smooth' as const })),
  });
  const [a, b] = [compiled(keys), compiled(drawByHandles(keys, 1))];
  for (let frame = 0; frame <= 40; frame += 0.5) expect(b.distance(frame)).toBeCloseTo(a.distance(frame), 10);
});

const steady = paceOf({ keys: [0, 24, 48, 72].map((frame) => ({ frame, value: frame / 4 })) });

it('a stop stands for its length, and what follows comes later by it', () => {
  const stopped = compiled(stopAtKey(steady, 1, 36));
  expect(stopped.stops).toEqual([{ from: 24, to: 60, distance: 6 }]);
  for (const frame of [24, 40, 59.9]) expect([stopped.distance(frame), stopped.speed(frame)]).toEqual([6, 0]);
  for (const frame of [61, 84, 108])
    expect(stopped.distance(frame)).toBeCloseTo(compiled(steady).distance(frame - 36), 12);
});

it('shifts what follows, but not before the key ahead of it', () => {
  expect(shiftFrom(steady, 2, 10).keys.map(({ frame }) => frame)).toEqual([0, 24, 58, 82]);
  expect(shiftFrom(steady, 2, -100).keys.map(({ frame }) => frame)).toEqual([0, 24, 25, 49]);
});

it('moves and scales chosen keys, none past one that stays', () => {
  const moved = moveKeys(steady, new Set([1, 2]), 90, -1);
  expect(moved.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [0, 0],
    [47, 5],
    [71, 11],
    [72, 18],
  ]);
  const scaled = scaleKeys(steady, new Set([1, 2, 3]), { frame: 24, value: 6 }, { frames: 2, value: 0.5 });
  expect(scaled.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [0, 0],
    [24, 6],
    [72, 9],
    [120, 12],
  ]);
  expect(scaleKeys(steady, new Set([1, 2]), { frame: 24, value: 6 }, { frames: 3, value: 1 })).toBe(steady);
});

it('swapped ends run the same ride backward', () => {
  const eased = { ...steady, keys: steady.keys.map((key) => ({ ...key, ease: 'smooth' as const })) };
  const [there, back] = [compiled(eased), compiled(swapEnds(eased))];
  for (let frame = 0; frame <= 72; frame += 1.5) {
    expect(back.distance(frame)).toBeCloseTo(there.distance(72 - frame), 10);
    expect(back.speed(frame)).toBeCloseTo(-there.speed(72 - frame), 10);
  }
});

it('keys come to whole frames, each on its own', () => {
  const rough = { ...steady, keys: [0.2, 0.4, 30.6, 30.7].map((frame, i) => ({ ...steady.keys[i], frame })) };
  expect(quantiseKeys(rough).keys.map(({ frame }) => frame)).toEqual([0, 1, 31, 32]);
});

it('begins at another frame and place, and is the same ride', () => {
  const moved = compiled(startPaceAt(steady, 10, 30));
  expect(moved.distance(34)).toBeCloseTo(36, 12);
  expect(moved.speed(34)).toBeCloseTo(6, 12);
});

it('more frames at as much less speed is the same ride in slow motion, however it is timed', () => {
  const map = { from: 0, to: 0, scale: 2 };
  const paces = [
    steady,
    paceOf({
      mode: 'speed',
      speeds: [
        { frame: 0, speed: 3 },
        { frame: 50, speed: 9 },
      ],
    }),
    paceOf({
      mode: 'speed',
      speeds: [
        { distance: 0, speed: 3 },
        { distance: 30, speed: 9 },
      ],
    }),
    paceOf({ mode: 'drive', drive: { top: 6, stops: [{ distance: 40, seconds: 1 }] }, start: { frame: 0 } }),
  ];
  for (const pace of paces) {
    const [fast, slow] = [compiled(pace), compiled(timesAsFast(withFrames(pace, map), 0.5))];
    for (let frame = 0; frame <= 140; frame += 3.5) {
      expect(slow.distance(2 * frame)).toBeCloseTo(fast.distance(frame), 7);
      expect(2 * slow.speed(2 * frame)).toBeCloseTo(fast.speed(frame), 7);
    }
  }
});
