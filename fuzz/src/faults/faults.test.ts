import { FaultStage } from './fault-stage.js';
import { FAULTS } from './faults.js';

// A small part of what `npm run faults` tries, always the same.

/** Servers are started again and again: on a busy machine each takes seconds, milliseconds in all. */
const SLOW = 240_000;

const stage = new FaultStage();
beforeAll(() => stage.start());
afterAll(() => stage.end());

it.each([
  ['forged pictures are refused in words', 'pictures', 21],
  ['hostile backups are refused whole', 'zips', 5],
  ['a server that is killed in the middle has lost nothing it acknowledged', 'kills', 10],
] as const)(
  '%s',
  async (_, kind, count) => {
    const wrong: string[] = [];
    for (let seed = 1; seed <= count; seed++) {
      const problem = await FAULTS[kind](seed, stage);
      if (problem !== null) wrong.push(`${kind} ${seed}: ${problem}`);
    }
    expect(wrong).toEqual([]);
  },
  SLOW,
);
