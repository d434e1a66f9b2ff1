import { KINDS } from './kinds.js';
import { tryShot } from './try-shot.js';

// A small part of what `npm run fuzz` tries, always the same.

const FILES = Object.keys(KINDS).filter((kind) => kind !== 'shots' && kind !== 'built') as Exclude<
  keyof typeof KINDS,
  'shots' | 'built'
>[];

it.each(FILES)('%s that are spoilt are read or refused in words', async (kind) => {
  const wrong: string[] = [];
  for (let seed = 1; seed <= 200; seed++) {
    const problem = await KINDS[kind](seed);
    if (problem !== null && !/^it took/.test(problem)) wrong.push(`${kind} ${seed}: ${problem}`);
  }
  expect(wrong).toEqual([]);
});

it.each([false, true])(
  'random shots are played to the end, every number of them is one; built: %s',
  async (built) => {
    const wrong: string[] = [];
    for (let seed = 1; seed <= (built ? 15 : 30); seed++) {
      const problem = await tryShot(seed, Infinity, built);
      if (problem !== null) wrong.push(`shots ${seed}: ${problem}`);
    }
    expect(wrong).toEqual([]);
  },
);

it('a drive over limits as jagged as they come, which once took minutes, is there in seconds', async () => {
  expect(await tryShot(52_852, 20)).toBeNull();
});
