import type { ChassisTrack } from '../../motion/ride/chassis-motion.js';
import { ChassisRates } from './chassis-rates.js';

/** A circle to the left, of any length. */
function round(radius: number, to: number): ChassisTrack {
  return {
    byDistance: true,
    from: 0,
    to,
    closed: false,
    origin: 0,
    joints: [],
    bend: () => 1 / radius,
    at(progress, out) {
      const [sin, cos] = [Math.sin(progress / radius), Math.cos(progress / radius)];
      // Place, left, up and ahead.
      out.set([-radius * cos, 0, radius * sin, cos, 0, -sin, 0, 1, 0, sin, 0, cos]);
    },
  };
}

const longest = ({ edges }: ChassisRates) =>
  Math.max(...Array.from(edges.subarray(1), (edge, i) => edge - edges[i]));

it('no stretch of a way turns by more than a quarter of a radian, in bends as tight as they come', () => {
  expect(longest(new ChassisRates(round(100, 50)))).toBeCloseTo(0.5, 12);
  // Half a metre round a metre is half a radian.
  expect(longest(new ChassisRates(round(1, 50)))).toBeCloseTo(0.25, 12);
  expect(longest(new ChassisRates(round(0.5, 50)))).toBeCloseTo(0.125, 12);
});

it('a way of hundreds of kilometres has no more of them than cells, however it bends', () => {
  for (const radius of [0.5, 30, 1e4]) {
    const { edges } = new ChassisRates(round(radius, 200_000));
    expect(edges.length).toBeLessThanOrEqual(5_002);
    expect(edges[edges.length - 1]).toBe(200_000);
  }
});

it('on a circle a chassis moves ahead by as much as it goes, and turns evenly', () => {
  const rates = new ChassisRates(round(20, 100));
  const at = rates.at(40);
  const [ahead, left, frontAhead, frontLeft, sideAhead, sideLeft] = rates.all.subarray(at, at + 6);
  expect(ahead).toBeCloseTo(1, 8);
  expect(left).toBeCloseTo(0, 8);
  expect(frontAhead).toBeCloseTo(0, 8);
  expect(Math.abs(frontLeft)).toBeCloseTo(1 / 20, 8);
  expect(sideAhead).toBeCloseTo(-frontLeft, 8);
  expect(sideLeft).toBeCloseTo(0, 8);
});
