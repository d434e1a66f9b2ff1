import fc from 'fast-check';
import { newShot } from '../../document/new-shot.js';
import type { Pace } from '../../document/shot-pace.js';
import { newAttachment } from '../ride/new-attachment.js';
import { moveKey } from './move-key.js';

const pace: Pace = {
  ...newAttachment('p', { first: 1, last: 100 }).pace,
  keys: [1, 40, 100].map((frame) => ({ frame, value: frame / 100, ease: 'linear', in: [0, 0], out: [0, 0] })),
};

it('keys stay in order and apart, wherever one is dragged', () => {
  fc.assert(
    fc.property(
      fc.nat(2),
      fc.integer({ min: -500, max: 500 }),
      fc.integer({ min: -5, max: 5 }),
      (i, frame, value) => {
        const { keys } = moveKey(pace, i, frame, value);
        expect(keys[i].value).toBe(value);
        expect(keys[1].frame - keys[0].frame).toBeGreaterThanOrEqual(1);
        expect(keys[2].frame - keys[1].frame).toBeGreaterThanOrEqual(1);
        keys.forEach((key, k) => k !== i && expect(key).toBe(pace.keys[k]));
      },
    ),
  );
});

it('a new attachment is a valid one, also for a shot of a single frame', () => {
  for (const range of [
    { first: 1, last: 240 },
    { first: 7, last: 7 },
  ]) {
    const attachment = newAttachment('p', range);
    const shot = newShot({
      name: 't',
      range,
      paths: [{ id: 'p', name: 'P' }],
      riders: [{ id: 'r', name: 'R', attachment }],
    });
    expect(shot.riders[0].attachment).toEqual(attachment);
    expect(attachment.pace.keys[0]).toMatchObject({ frame: range.first, value: 0 });
    expect(attachment.pace.keys[1].value).toBe(1);
  }
});
