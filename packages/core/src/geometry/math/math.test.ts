import fc from 'fast-check';
import { modulo } from './angle.js';
import { gaussLegendreRule } from './gauss-legendre.js';
import { monotoneTangents } from './monotone-tangents.js';

it('a rule of n points integrates polynomials up to degree 2n − 1 exactly', () => {
  for (const n of [1, 2, 5, 12]) {
    const { nodes, weights } = gaussLegendreRule(n);
    for (let degree = 0; degree <= 2 * n - 1; degree++) {
      const sum = nodes.reduce((total, x, i) => total + weights[i] * x ** degree, 0);
      expect(sum).toBeCloseTo(degree % 2 === 1 ? 0 : 2 / (degree + 1), 13);
    }
  }
});

it('a cubic with monotone tangents never leaves the span of its two ends', () => {
  const values = fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 2, maxLength: 12 });
  const slope = fc.double({ min: -1000, max: 1000, noNaN: true });
  fc.assert(
    fc.property(values, slope, slope, (y, start, end) => {
      const x = y.map((_, i) => i * 1.5);
      const m = monotoneTangents(x, y, start, end);
      for (let i = 0; i + 1 < y.length; i++) {
        const low = Math.min(y[i], y[i + 1]) - 1e-9;
        const high = Math.max(y[i], y[i + 1]) + 1e-9;
        for (let t = 0; t <= 1; t += 0.05) {
          const h = 1.5;
          const value =
            y[i] * (1 + 2 * t) * (1 - t) ** 2 +
            h * m[i] * t * (1 - t) ** 2 +
            y[i + 1] * t * t * (3 - 2 * t) +
            h * m[i + 1] * t * t * (t - 1);
          if (value < low || value > high) throw new Error(`${value} leaves ${low} … ${high}`);
        }
      }
    }),
  );
});

it('points on a line keep its slope', () => {
  expect(monotoneTangents([0, 1, 4], [2, 5, 14], 3, 3)).toEqual([3, 3, 3]);
});

it('a value a trace below 0 is brought to the beginning, not to the end that belongs to the next cycle', () => {
  expect([modulo(-1e-17, 31), modulo(-1, 31), modulo(31, 31), modulo(40, 31)]).toEqual([0, 30, 0, 9]);
  fc.assert(
    fc.property(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.double({ min: 1e-3, max: 1e4, noNaN: true }),
      (value, size) => {
        const inside = modulo(value, size);
        expect(inside >= 0 && inside < size).toBe(true);
      },
    ),
  );
});
