import fc from 'fast-check';
import { simplifyGraph } from './simplify-graph.js';

/** The height of straight lines between the kept points, at any abscissa. */
function lineAt(x: readonly number[], y: readonly number[], kept: readonly number[], at: number): number {
  const next = kept.findIndex((i) => x[i] >= at);
  if (next <= 0) return y[kept[0]];
  const [a, b] = [kept[next - 1], kept[next]];
  return y[a] + ((y[b] - y[a]) * (at - x[a])) / (x[b] - x[a]);
}

it('keeps the ends, and whatever else it takes to be within the tolerance everywhere', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 2, maxLength: 60 }),
      fc.integer({ min: 0, max: 20 }),
      (y, tolerance) => {
        const x = y.map((_, i) => i * 1.5 + 3);
        const kept = simplifyGraph(x, y, tolerance);
        expect(kept[0]).toBe(0);
        expect(kept[kept.length - 1]).toBe(y.length - 1);
        y.forEach((value, i) =>
          expect(Math.abs(lineAt(x, y, kept, x[i]) - value)).toBeLessThanOrEqual(tolerance + 1e-9),
        );
      },
    ),
  );
});

it('of a straight line keeps its two ends, of a bend the bend', () => {
  const x = [0, 1, 2, 3, 4];
  expect(simplifyGraph(x, [0, 2, 4, 6, 8], 1e-9)).toEqual([0, 4]);
  expect(simplifyGraph(x, [0, 0, 0, 5, 10], 1e-9)).toEqual([0, 2, 4]);
});
