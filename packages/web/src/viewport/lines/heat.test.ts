import { newAttachment, newShot } from '@fleet-rail/core';
import { evaluateWhole } from '../../workers/evaluation/evaluate-whole';
import { heatOf } from './heat';
import { pictureRect } from '../drawing/picture-rect';
import { sightLines } from './sight-lines';

const range = { first: 1, last: 101 };
const attachment = newAttachment('p', range);
const shot = newShot({
  name: 't',
  range,
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 100] }] },
  ],
  riders: [
    {
      id: 'r',
      name: 'R',
      attachment: {
        ...attachment,
        // The first quarter in half of the time, three quarters of the way at most.
        pace: {
          ...attachment.pace,
          keys: [
            { frame: 1, value: 0 },
            { frame: 51, value: 0.25 },
            { frame: 101, value: 0.75 },
          ],
        },
        facing: { mode: 'aim', target: { rider: 'post', node: 'top', at: [0, 2, 1] } },
      },
    },
    {
      id: 'post',
      name: 'Post',
      rest: { translation: [5, 0, 0], rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2], scale: [1, 2, 1] },
    },
  ],
});
const evaluation = evaluateWhole(shot);

it('heat is the speed where the rider passes, and none where it does not', () => {
  const path = evaluation.paths.get('p');
  const rider = evaluation.riders.get('r');
  if (!path || !rider) throw new Error('nothing was evaluated');
  const { values, high } = heatOf(path, rider, 'speed');
  // 50 m in 50 frames at 24 a second; before that half as fast.
  expect(high).toBeCloseTo(24, 5);
  const at = (part: number) => values[Math.round(part * (values.length - 1))];
  expect(at(0.1)).toBeCloseTo(0.5, 5);
  expect(at(0.5)).toBeCloseTo(1, 5);
  expect(at(0.9)).toBe(-1);
});

it('lines of sight end at the part that is aimed at', () => {
  const lines = sightLines(shot, evaluation, 'r');
  expect(lines).toHaveLength(25 * 6);
  // Two up and one ahead of a post twice as tall that is turned to +X.
  for (let at = 0; at < lines.length; at += 6) {
    expect([...lines.subarray(at + 3, at + 6)]).toEqual([6, 4, 0].map((v) => expect.closeTo(v, 5)));
  }
});

it('a picture is fitted into the stage with some room round it', () => {
  expect(pictureRect(1000, 300, 1.5)).toEqual({ x: 344, y: 46, width: 312, height: 208 });
  expect(pictureRect(392, 1000, 1.5)).toEqual({ x: 46, y: 400, width: 300, height: 200 });
});
