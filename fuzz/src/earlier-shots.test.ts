import { parseShot } from '@fleet-rail/core';
import { earlierShots, tryEarlier } from './earlier-shots.js';
import { withAnswers } from './random-answers.js';
import { withBuilt } from './random-built.js';
import { withHandWork } from './random-hand-work.js';
import { randomShot } from './random-shot.js';
import { Random } from './random.js';
import { ANSWERS, BUILT, BY_HAND } from './try-shot.js';

it('shots of version 1 become what is written under the names of today', () => {
  const kept = earlierShots();
  expect(kept).toHaveLength(200);
  for (const { seed, shot } of kept) {
    expect(shot.version).toBe(1);
    const plain = withHandWork(randomShot(new Random(seed)), new Random(seed ^ BY_HAND));
    const answers = withAnswers(plain, new Random(seed ^ ANSWERS));
    const today = parseShot(seed % 2 === 0 ? withBuilt(answers, new Random(seed ^ BUILT)) : answers);
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
