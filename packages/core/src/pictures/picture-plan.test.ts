import fc from 'fast-check';
import {
  filmBits,
  filmRate,
  fourDigits,
  plannedPictures,
  batchesOf,
  type FreeEye,
  type PictureWish,
} from './picture-plan.js';

const wish: PictureWish = {
  frames: 'range',
  every: 1,
  eye: 'view',
  width: 1280,
  height: 720,
  times: 1,
  file: 'png',
  quality: 0.8,
  rounds: 1,
  burnIn: { frame: false, timecode: false, name: false, board: false, safe: false },
  helpers: false,
  clear: false,
};
const range = { first: 1, last: 10 };
const cuts = [
  { frame: 3, camera: 'a' },
  { frame: 7, camera: 'b' },
];
const view: FreeEye = { position: [0, 2, 9], rotation: [0, 0, 0, 1], fieldOfView: 0.6, height: null };
const ground = { frame: 4.4, range, cuts, cameras: ['a', 'b'], view: () => view };
const plan = (part: Partial<PictureWish>) => plannedPictures({ ...wish, ...part }, ground);

it('every n-th frame of the range, from its first on', () => {
  expect(plan({ every: 4 }).map(({ frame }) => frame)).toEqual([1, 5, 9]);
  expect(plan({})).toHaveLength(10);
});

it('the shown frame alone is one picture; a film is never of one', () => {
  expect(plan({ frames: 'one' })).toEqual([{ frame: 4, eyes: [{ free: view }] }]);
  expect(plan({ frames: 'one', file: 'webm' })).toHaveLength(10);
});

it('through the cuts each frame has its camera, before the first cut that of the first', () => {
  const seen = plan({ eye: 'cuts' }).flatMap(({ eyes }) => eyes);
  expect(seen).toEqual([...'aaaaaabbbb'].map((rider) => ({ rider })));
  const uncut = plannedPictures({ ...wish, eye: 'cuts' }, { ...ground, cuts: [], cameras: ['c'] });
  expect(uncut[0].eyes).toEqual([{ rider: 'c' }]);
});

it('up to four cameras are seen side by side', () => {
  const riders = ['a', 'b', 'c', 'd', 'e'];
  expect(plan({ eye: { riders } })[0].eyes).toEqual(riders.slice(0, 4).map((rider) => ({ rider })));
});

it('a sheet has a picture where it begins and at each cut', () => {
  expect(plan({ file: 'sheet', frames: 'cuts' }).map(({ frame }) => frame)).toEqual([1, 3, 7]);
  // Without cuts at even steps.
  const uncut = (last: number) =>
    plannedPictures(
      { ...wish, file: 'sheet', frames: 'cuts' },
      { ...ground, range: { first: 1, last }, cuts: [] },
    ).map(({ frame }) => frame);
  expect(uncut(81)).toEqual([1, 11, 21, 31, 41, 51, 61, 71, 81]);
  expect([uncut(3), uncut(1)]).toEqual([[1, 2, 3], [1]]);
  expect(plan({ file: 'pdf', frames: 'range', every: 5 }).map(({ frame }) => frame)).toEqual([1, 6]);
});

it('runs hold each picture once, in order', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5_000 }), (count) => {
      const all = batchesOf(count).flatMap((run) =>
        Array.from({ length: run.count }, (_, i) => run.first + i),
      );
      expect(all).toEqual(Array.from({ length: count }, (_, i) => i));
      expect(Math.max(...batchesOf(count).map((run) => run.count))).toBeLessThanOrEqual(24);
    }),
    { numRuns: 50 },
  );
  expect(filmRate(24, 5)).toBeCloseTo(4.8, 12);
});

it('better is more bits, and never fewer than a hundred thousand a second', () => {
  expect(filmBits({ ...wish, quality: 0 }, 24)).toBe(Math.round(1280 * 720 * 24 * 0.05));
  expect(filmBits({ ...wish, quality: 1 }, 24)).toBe(Math.round(1280 * 720 * 24 * 0.35));
  expect(filmBits({ ...wish, width: 16, height: 16 }, 1)).toBe(100_000);
});

it('frames have four digits', () => {
  expect([1, 240, -12, 12345].map(fourDigits)).toEqual(['0001', '0240', '-0012', '12345']);
});
