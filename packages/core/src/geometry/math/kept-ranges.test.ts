import fc from 'fast-check';
import { KeptRanges } from './kept-ranges.js';

const range = fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: 0, max: 250 }));
const value = (k: number) => Math.sin(3.7 * k) + k / 100;

it('ranges come to what all of their numbers do, and each is asked about once', () => {
  fc.assert(
    fc.property(fc.array(range, { minLength: 1, maxLength: 20 }), (ranges) => {
      const asked: number[] = [];
      const greatest = new KeptRanges((k) => (asked.push(k), value(k)), Math.max);
      const sums = new KeptRanges(value, (a, b) => a + b);
      for (const [from, length] of ranges) {
        const all = Array.from({ length }, (_, i) => value(from + i));
        let [most, sum] = [-Infinity, 0];
        greatest.over(from, from + length, (part) => (most = Math.max(most, part)));
        sums.over(from, from + length, (part) => (sum += part));
        expect(most).toBe(Math.max(-Infinity, ...all));
        expect(sum).toBeCloseTo(
          all.reduce((a, b) => a + b, 0),
          9,
        );
      }
      expect(new Set(asked).size).toBe(asked.length);
      const within = (k: number) => ranges.some(([from, length]) => k >= from && k < from + length);
      expect(asked.every(within)).toBe(true);
    }),
  );
});

it('a wide range moved along by one is put together of a few parts', () => {
  const sums = new KeptRanges(value, (a, b) => a + b);
  for (let from = 0; from < 200; from++) {
    let parts = 0;
    sums.over(from, from + 100_000, () => parts++);
    expect(parts).toBeLessThanOrEqual(2 * Math.log2(100_000));
  }
});
