import { line, shotOf } from '../../test/shots.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { riderSources } from '../shot/evaluate/rider-sources.js';
import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { cuesBehind } from './each-action.js';
import type { Cue } from './shot-cue.js';

const MANY = 500;

/** Cues that each listen to the one before, all acting on one rider. */
const chain = shotOf([line(60)], [{ id: 'r', name: 'Wagon', badge: 'W1', attachment: { path: 'p' } }], {
  cues: Array.from({ length: MANY }, (_, i) => ({
    id: `c${i}`,
    name: `Cue ${i}`,
    trigger: i === 0 ? { kind: 'frame' as const } : { kind: 'cue' as const, cue: `c${i - 1}` },
    action: { kind: 'facing' as const, rider: 'r' },
    keys: [{ at: i === 0 ? 5 : 0.01, value: 1 }],
  })),
});

describe('cues that listen to each other', () => {
  it('are told with all that they wait for, themselves first', () => {
    expect(cuesBehind(chain.cues[3], chain.cues).map(({ id }) => id)).toEqual(['c3', 'c2', 'c1', 'c0']);
  });

  it('are not looked for among all of them each time', () => {
    let asked = 0;
    const counted = chain.cues.map((cue): Cue =>
      Object.defineProperty({ ...cue }, 'id', {
        get() {
          asked++;
          return cue.id;
        },
      }),
    );
    for (const cue of counted) cuesBehind(cue, counted);
    expect(asked).toBeLessThanOrEqual(MANY);
  });

  it('are told once in what a rider’s poses follow from', () => {
    const [rider] = chain.riders;
    const { paths, assets } = evaluateShot(chain, NO_ASSETS);
    const { text } = riderSources(chain, rider, new Map([['r', rider]]), paths, assets, '');
    expect(text.split('"id":"c0"')).toHaveLength(2);
  });
});
