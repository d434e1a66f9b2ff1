import { newShot } from '@fleet-rail/core/shots';
import fc from 'fast-check';
import { JsonScan } from './json-scan.js';

const LIMITS = { bytes: 2 ** 20, values: 1000, depth: 5, keys: 600 };
const scan = (text: string, limits = LIMITS) => new JsonScan(limits).take(Buffer.from(text));

it.each([
  ['too many values in a list', `[${'1,'.repeat(1000)}1]`, /over 0.001 million values/],
  ['too many values in an object', `{${'"a":1,'.repeat(500)}"b":1}`, /over 0.001 million values/],
  ['too many empty lists', `[${'[],'.repeat(500)}[]]`, /million values/],
  ['too deep', '[[[[[[1]]]]]]', /nested over 5 deep/],
  ['never closed', '['.repeat(6), /nested over 5 deep/],
  ['too long', `"${'x'.repeat(2 ** 20)}"`, /over 1 MB/],
])('%s is refused', (_, text, problem) => {
  expect(scan(text)).toMatch(problem);
});

it('brackets and commas in strings count for nothing, escaped quotes included', () => {
  expect(scan(JSON.stringify({ [`{["\\",:`.repeat(1000)]: '"]}\\' }))).toBeNull();
});

it('different keys are counted, in whatever objects they are, and values are none', () => {
  const object = (keys: number) => `{${Array.from({ length: keys }, (_, i) => `"k${i}":"v${i}"`).join(',')}}`;
  const limits = { ...LIMITS, keys: 100 };
  expect(scan(`[${object(100)},${object(100)}]`, limits)).toBeNull();
  expect(scan(object(101), limits)).toMatch(/over 100 different keys/);
});

it('a text has the same weight in whatever parts it comes', () => {
  fc.assert(
    fc.property(fc.json({ maxDepth: 8 }), fc.array(fc.nat(40)), (text, cuts) => {
      const limits = { bytes: 1e6, values: 40, depth: 4, keys: 6 };
      const bytes = Buffer.from(text);
      const parts = new JsonScan(limits);
      let problem: string | null = null;
      let at = 0;
      for (const cut of [...cuts, bytes.length]) {
        problem ??= parts.take(bytes.subarray(at, at + cut));
        at += cut;
      }
      problem ??= parts.take(bytes.subarray(at));
      expect(problem === null).toBe(scan(text, limits) === null);
    }),
  );
});

it('a document of as many points as fit into 64 MB is within the limit of values', () => {
  const points = Array.from({ length: 5000 }, () => ({ position: [0, 0, 0] as [number, number, number] }));
  const text = JSON.stringify(newShot({ name: 'Dense', paths: [{ id: 'p', name: 'P', points }] }));
  const limits = { bytes: 2 ** 26, values: (24e6 * text.length) / 2 ** 26, depth: 64, keys: 10_000 };
  expect(scan(text, limits)).toBeNull();
});
