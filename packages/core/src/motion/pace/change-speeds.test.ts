import { addSpeed, moveSpeed, stretchAtSpeed } from './change-speeds.js';
import { compilePace } from './compile-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const byFrame = paceOf({ speeds: [10, 20, 30].map((frame) => ({ frame, speed: frame })) });
const back = paceOf({ speeds: [0, 20].map((distance) => ({ distance, speed: -3 })) });

it('a speed goes in where it belongs, or in the place of one', () => {
  const frames = ({ speeds }: typeof byFrame) => speeds.map(({ frame, speed }) => [frame, speed]);
  expect(frames(addSpeed(byFrame, { frame: 15, speed: 4, ease: 'smooth' }))).toEqual([
    [10, 10],
    [15, 4],
    [20, 20],
    [30, 30],
  ]);
  expect(frames(addSpeed(byFrame, { frame: 20, speed: 4, ease: 'smooth' }))[1]).toEqual([20, 4]);
});

it('a speed is moved between its neighbours; by distance it neither stands nor turns round', () => {
  expect(moveSpeed(byFrame, 1, -2, 99).speeds[1]).toMatchObject({ frame: 29, speed: -2 });
  expect(moveSpeed(byFrame, 1, 0, -9).speeds[1]).toMatchObject({ frame: 11, speed: 0 });
  expect(moveSpeed(back, 1, 5, 99).speeds[1]).toMatchObject({ distance: 20, speed: -0.01 });
  expect(addSpeed(back, { distance: 9, speed: 0, ease: 'hold' }).speeds[1].speed).toBe(-0.01);
});

it('a stretch at another speed has it, and what follows comes as much sooner', () => {
  const keys = paceOf({ keys: [0, 24, 48, 60].map((frame, i) => ({ frame, value: [0, 12, 12, 3][i] })) });
  const faster = stretchAtSpeed(keys, 0, 24, 24, 1);
  expect(compilePace(faster, 24, straight(50)).speed(3)).toBeCloseTo(24, 9);
  expect(faster.keys.map(({ frame }) => frame)).toEqual([0, 12, 36, 48]);
  // Backward it is as fast; a stop has no speed to be given.
  expect(compilePace(stretchAtSpeed(keys, 2, 9, 24, 1), 24, straight(50)).speed(50)).toBeCloseTo(-9, 9);
  expect(stretchAtSpeed(keys, 1, 9, 24, 1)).toBe(keys);
});
