import fc from 'fast-check';
import { KeptNumbers } from './kept-numbers.js';

const keep = (kept: KeptNumbers, key: number) => {
  const at = kept.put(key);
  kept.values[at] = 2 * key;
  kept.values[at + 1] = key - 1;
};
const found = (kept: KeptNumbers, key: number) => {
  const at = kept.find(key);
  return at < 0 ? null : [kept.values[at], kept.values[at + 1]];
};

it('whatever is kept is found, and nothing else', () => {
  // Without the zero below nought, which equals the other.
  const number = fc
    .oneof(fc.integer(), fc.double({ noNaN: true, noDefaultInfinity: true }))
    .map((value) => value + 0);
  const expected = fc.constantFrom(0, 100, 1e9);
  fc.assert(
    fc.property(
      fc.uniqueArray(number, { minLength: 1, maxLength: 300 }),
      expected,
      ([other, ...keys], many) => {
        const kept = new KeptNumbers(2, many);
        for (const key of keys) keep(kept, key);
        for (const key of keys) expect(found(kept, key)).toEqual([2 * key, key - 1]);
        expect(keys.some((key) => key === other) ? null : found(kept, other)).toBeNull();
      },
    ),
  );
});

it('when more come than are kept it begins anew, and still tells no other’s', () => {
  const kept = new KeptNumbers(2);
  for (let i = 0; i < 100_000; i++) keep(kept, i / 7);
  for (let i = 99_000; i < 100_000; i++) expect(found(kept, i / 7)).toEqual([(2 * i) / 7, i / 7 - 1]);
  expect(found(kept, 0)).toBeNull();
});
