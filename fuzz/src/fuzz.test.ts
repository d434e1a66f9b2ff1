import { KINDS } from './kinds.js';
import { tryShot } from './try-shot.js';

// A small part of what `npm run fuzz` tries, always the same.

const FILES = Object.keys(KINDS).filter((kind) => kind !== 'shots') as Exclude<keyof typeof KINDS, 'shots'>[];

it.each(FILES)('%s that are spoilt are read or refused in words', async (kind) => {
  const wrong: string[] = [];
  for (let seed = 1; seed <= 200; seed++) {
    const problem = await KINDS[kind](seed);
    if (problem !== null && !/^it took/.test(problem)) wrong.push(`${kind} ${seed}: ${problem}`);
  }
  expect(wrong).toEqual([]);
});

it('random shots are played to the end, and every number of them is one', () => {
  const wrong: string[] = [];
  for (let seed = 1; seed <= 30; seed++) {
    const problem = tryShot(seed, Infinity);
    if (problem !== null) wrong.push(`shots ${seed}: ${problem}`);
  }
  expect(wrong).toEqual([]);
});

it('a drive over limits as jagged as they come, which once took minutes, is there in seconds', () => {
  expect(tryShot(52_852, 20)).toBeNull();
});
