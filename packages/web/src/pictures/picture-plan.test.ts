import { expect, it } from '@jest/globals';
import { filmBits, filmRate, fourDigits, plannedPictures, type PictureWish } from './picture-plan';

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
const plan = (part: Partial<PictureWish>) =>
  plannedPictures({ ...wish, ...part }, 4.4, range, cuts, ['a', 'b']);

it('every n-th frame of the range, from its first on', () => {
  expect(plan({ every: 4 }).map(({ frame }) => frame)).toEqual([1, 5, 9]);
  expect(plan({})).toHaveLength(10);
});

it('the shown frame alone is one picture; a film is never of one', () => {
  expect(plan({ frames: 'one' })).toEqual([{ frame: 4, through: null }]);
  expect(plan({ frames: 'one', file: 'webm' })).toHaveLength(10);
});

it('through the cuts each frame has its camera, before the first cut that of the first', () => {
  const seen = plan({ eye: 'cuts' }).map(({ through }) => through);
  expect(seen).toEqual(['a', 'a', 'a', 'a', 'a', 'a', 'b', 'b', 'b', 'b']);
  expect(plannedPictures({ ...wish, eye: 'cuts' }, 1, range, [], ['c'])[0].through).toBe('c');
});

it('a film goes round as often as wished, with no picture twice at the seam', () => {
  const frames = plan({ file: 'mp4', rounds: 3, every: 5 }).map(({ frame }) => frame);
  expect(frames).toEqual([1, 6, 1, 6, 1, 6]);
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
