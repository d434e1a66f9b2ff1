import { parseShot } from '@fleet-rail/core';
import { earlierShots, tryEarlier } from './earlier-shots.js';
import { randomDocument } from './random-document.js';

it('shots of version 1 become what is written under the names of today', () => {
  const kept = earlierShots();
  expect(kept).toHaveLength(200);
  for (const { seed, shot } of kept) {
    expect(shot.version).toBe(1);
    const today = parseShot(randomDocument(seed, seed % 2 === 0));
    expect(parseShot(shot)).toEqual(today);
  }
});

// A small part of what `npm run fuzz -- earlier 200` plays, always the same.
it.each([1, 2, 10, 31, 58, 77, 104, 123, 150, 166, 189, 200])(
  'shot %i of version 1 plays as it did, to the last bit',
  async (n) => {
    expect(await tryEarlier(n)).toBeNull();
  },
);
