import { KINDS } from './kinds.js';
import { tryShot } from './try-shot.js';

// A small part of what `npm run fuzz` tries, always the same.

const SHOTS = ['shots', 'built', 'extremes', 'earlier'] as const;
const FILES = (Object.keys(KINDS) as (keyof typeof KINDS)[]).filter((kind) =>
  SHOTS.every((other) => other !== kind),
);

it.each(FILES)('%s that are spoilt are read or refused in words', async (kind) => {
  const wrong: string[] = [];
  for (let seed = 1; seed <= 200; seed++) {
    const problem = await KINDS[kind](seed);
    if (problem !== null && !/^it took/.test(problem)) wrong.push(`${kind} ${seed}: ${problem}`);
  }
  expect(wrong).toEqual([]);
});

it.each([
  ['as they come', 30, {}],
  ['with what is built and moved by forces', 15, { built: true }],
  ['with numbers as large as they may be', 30, { extreme: true }],
])('random shots %s are played to the end, every number of them is one', async (_, count, trial) => {
  const wrong: string[] = [];
  for (let seed = 1; seed <= count; seed++) {
    const problem = await tryShot(seed, { ...trial, most: Infinity });
    if (problem !== null) wrong.push(`shots ${seed}: ${problem}`);
  }
  expect(wrong).toEqual([]);
});

it('a drive over limits as jagged as they come, which once took minutes, is there in seconds', async () => {
  expect(await tryShot(52_852, { most: 20 })).toBeNull();
});
