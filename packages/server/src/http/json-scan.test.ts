import fc from 'fast-check';
import { JsonScan } from './json-scan.js';

const LIMITS = { bytes: 2 ** 20, values: 1000, depth: 5, keys: 600 };
const scan = (text: string, limits = LIMITS) => new JsonScan(limits).take(Buffer.from(text));

it.each([
  ['too many values in a list', `[${'1,'.repeat(1000)}1]`, /over 0.001 million values/],
  ['too many keys in an object', `{${'"a":1,'.repeat(500)}"b":1}`, /over 0.001 million values/],
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

it('keys are counted object by object', () => {
  const object = (keys: number) => `{${Array.from({ length: keys }, (_, i) => `"k${i}":{}`).join(',')}}`;
  const limits = { ...LIMITS, keys: 100 };
  expect(scan(`[${object(100)},${object(100)}]`, limits)).toBeNull();
  expect(scan(object(101), limits)).toMatch(/an object with over 100 keys/);
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
