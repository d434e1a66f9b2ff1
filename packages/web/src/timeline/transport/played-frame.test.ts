import { playedFrame } from './played-frame';

const range = { first: 1, last: 48 };

it('follows the clock, dropping frames where it is asked seldom', () => {
  const asked = [0, 1 / 24, 0.5, 1, 1.99].map((seconds) => playedFrame(1, seconds, 24, range, false));
  expect(asked).toEqual([1, 2, 13, 25, 48]);
});

it('ends after the last frame', () => {
  expect(playedFrame(1, 2, 24, range, false)).toBeNull();
  expect(playedFrame(48, 0, 24, range, false)).toBe(48);
});

it('a loop begins again with the first frame, without showing one twice', () => {
  const shown = Array.from({ length: 97 }, (_, i) => playedFrame(1, i / 24, 24, range, true));
  expect(shown.slice(47, 50)).toEqual([48, 1, 2]);
  expect(shown[96]).toBe(1);
});
