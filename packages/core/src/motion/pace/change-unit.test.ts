import { newAttachment } from '../ride/new-attachment.js';
import { changeUnit } from './change-unit.js';
import { compilePace } from './compile-pace.js';
import { straight } from '../../../test/tracks.js';

const LENGTH = 48;
const { pace: plain } = newAttachment('p', { first: 1, last: 241 });
const pace = {
  ...plain,
  start: { frame: 1, value: 0.25 },
  keys: plain.keys.map((key) => ({
    ...key,
    in: [-8, -0.5] as [number, number],
    out: [8, 0.5] as [number, number],
  })),
};

it('the motion is the same in either unit', () => {
  const inMetres = changeUnit(pace, 'metres', LENGTH);
  const [before, after] = [
    compilePace(pace, 24, straight(LENGTH)),
    compilePace(inMetres, 24, straight(LENGTH)),
  ];
  for (const frame of [1, 60.5, 121, 241]) {
    expect(after.distance(frame)).toBeCloseTo(before.distance(frame), 12);
    expect(after.speed(frame)).toBeCloseTo(before.speed(frame), 12);
  }
});

it('keys, handles and start are converted; frames are not', () => {
  const { keys, start } = changeUnit(pace, 'metres', LENGTH);
  expect(keys[1]).toMatchObject({ frame: 241, value: 48, in: [-8, -24], out: [8, 24] });
  expect(start).toEqual({ frame: 1, value: 12 });
});

it('there and back is where it was, and the same unit is the same pace', () => {
  expect(changeUnit(changeUnit(pace, 'metres', LENGTH), 'laps', LENGTH)).toEqual(pace);
  expect(changeUnit(pace, 'laps', LENGTH)).toBe(pace);
});
