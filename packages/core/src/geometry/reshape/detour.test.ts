import fc from 'fast-check';
import { BASES, at, ofBasis, pathOf } from '../../../test/paths.js';
import { line } from '../../../test/shots.js';
import { compilePath } from '../path/compile-path.js';
import { findKinks } from '../path/path-facts.js';
import { detourPath } from './detour.js';

it('a straight is led aside by as much as asked for, smoothly, and is where it was beyond that', () => {
  const led = compilePath(detourPath(pathOf(line(40)), 20, 3, 12));
  // Left of +Z is +X.
  const [x, , z] = at(led, led.length / 2);
  expect([x, z]).toEqual([expect.closeTo(3, 6), expect.closeTo(20, 6)]);
  expect(findKinks(led)).toEqual([]);
  expect(at(led, 8)[0]).toBeCloseTo(0, 9);
  expect(at(led, led.length - 8)[0]).toBeCloseTo(0, 9);
});

it('on any path in any basis the place is so far aside, and nothing is moved beyond its reach', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...BASES),
      fc.boolean(),
      fc.double({ min: 0.3, max: 0.7, noNaN: true }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      (basis, closed, part, left) => {
        const path = ofBasis(basis, closed);
        const before = compilePath(path);
        const place = part * before.length;
        const reach = before.length / 5;
        const after = compilePath(detourPath(path, place, left, reach));
        // Far from it the path is the same curve: at its very beginning, beyond the reach.
        const [a, b] = [at(before, 0), at(after, 0)];
        expect(Math.hypot(...a.map((value, k) => value - b[k]))).toBeLessThan(closed ? 0.01 : 2e-3);
        const here = at(before, place);
        let least = Infinity;
        for (let i = 0; i <= 2000; i++) {
          const there = at(after, (i / 2000) * after.length);
          least = Math.min(
            least,
            Math.abs(Math.hypot(...here.map((value, k) => value - there[k])) - Math.abs(left)),
          );
        }
        expect(least).toBeLessThan(0.05 + Math.abs(left) * 0.05);
      },
    ),
    { numRuns: 40 },
  );
});
