import fc from 'fast-check';
import { hannAverages, hannWeights } from './hann.js';

describe('averages under a smooth window', () => {
  it('are the sums of neighbours by their weights, however wide it is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 1, maxLength: 40 }),
        fc.double({ min: 1, max: 130, noNaN: true }),
        fc.boolean(),
        (values, width, loop) => {
          const weights = hannWeights(width);
          const reach = (weights.length - 1) / 2;
          const count = values.length;
          const neighbour = (j: number) =>
            values[loop ? ((j % count) + count) % count : Math.min(count - 1, Math.max(0, j))];
          const averages = hannAverages(Float64Array.from(values), 1, width, loop);
          values.forEach((_, i) => {
            let sum = 0;
            weights.forEach((weight, w) => (sum += weight * neighbour(i + w - reach)));
            expect(averages[i]).toBeCloseTo(sum, 10);
          });
        },
      ),
    );
  });

  it('leave what is even as it is, number by number, and halve a wave as long as the window', () => {
    const count = 60_000;
    const values = Float64Array.from({ length: 2 * count }, (_, j) =>
      j % 2 === 0 ? 7 : Math.cos((2 * Math.PI * (j - 1)) / 2 / (count / 4)),
    );
    const averages = hannAverages(values, 2, count / 4, true);
    for (let i = 0; i < count; i += 997) {
      expect(averages[2 * i]).toBeCloseTo(7, 10);
      // The window is (1 + cos) over its width: of a wave of that length half its own cosine's mean square is left.
      expect(averages[2 * i + 1]).toBeCloseTo(values[2 * i + 1] / 2, 7);
    }
  });
});
