import { compilePace } from './compile-pace.js';
import { fitKeys, keyedStretch } from './fit-keys.js';
import { heldPace } from './held-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const track = straight(80);
const keys = [
  { frame: 1, value: 0, ease: 'smooth' as const },
  { frame: 25, value: 30, ease: 'linear' as const },
  { frame: 49, value: 60 },
];

it.each(['metres', 'laps'] as const)(
  'keys in %s that reach too far are drawn together into a part',
  (unit) => {
    const worth = unit === 'laps' ? 80 : 1;
    const within: [number, number] = [10, 40];
    const wide = paceOf({ unit, within, keys: keys.map((key) => ({ ...key, value: key.value / worth })) });
    const fitted = fitKeys(wide, track, within);
    expect(keyedStretch(fitted, track)).toEqual([10, 40]);
    const pace = heldPace(compilePace(fitted, 24, track), fitted, track);
    expect([1, 25, 37, 49].map((frame) => pace.distance(frame))).toEqual(
      [10, 25, 32.5, 40].map((value) => expect.closeTo(value, 9)),
    );
  },
);

it('keys that are short enough keep their shape, and are only moved', () => {
  const short = paceOf({ keys });
  expect(fitKeys(short, track, [10, 75]).keys.map(({ value }) => value)).toEqual([10, 40, 70]);
  expect(fitKeys(short, track, [0, 70]).keys).toEqual(short.keys);
  expect(keyedStretch(paceOf({ mode: 'drive' }), track)).toBeNull();
});
