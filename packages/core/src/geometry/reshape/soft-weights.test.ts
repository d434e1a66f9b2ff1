import { pathOf } from '../../../test/paths.js';
import type { Vec3 } from '../math/vec.js';
import { softWeights } from './soft-weights.js';

const at = (...places: Vec3[]) => places.map((position) => ({ position }));
/** Points 2 m apart on a straight. */
const straight = pathOf({
  basis: 'polyline',
  points: at([0, 0, 0], [0, 0, 2], [0, 0, 4], [0, 0, 6], [0, 0, 8]),
});
const near = (values: number[]) => values.map((value) => expect.closeTo(value, 12));

it('falls off along the path by half a cosine', () => {
  // Of 4 m: half of it at 2 m, none at 4 m.
  expect(softWeights(straight, new Set([2]), 4)).toEqual(near([0, 0.5, 1, 0.5, 0]));
  expect(softWeights(straight, new Set([0]), 6)).toEqual(
    near([1, (1 + Math.cos(Math.PI / 3)) / 2, (1 + Math.cos((2 * Math.PI) / 3)) / 2, 0, 0]),
  );
  expect(softWeights(straight, new Set([0, 4]), 4)).toEqual(near([1, 0.5, 0, 0.5, 1]));
});

it('without a radius the chosen points go alone', () => {
  expect(softWeights(straight, new Set([1, 3]), 0)).toEqual([0, 1, 0, 1, 0]);
});

it('is measured along the path: across a hairpin nothing is near, over the seam of a round it is', () => {
  const hairpin = pathOf({ basis: 'polyline', points: at([0, 0, 0], [0, 0, 50], [1, 0, 50], [1, 0, 0]) });
  expect(softWeights(hairpin, new Set([0]), 20)).toEqual([1, 0, 0, 0]);
  const square = pathOf({
    basis: 'polyline',
    closed: true,
    points: at([0, 0, 0], [0, 0, 10], [10, 0, 10], [10, 0, 0]),
  });
  expect(softWeights(square, new Set([0]), 20)).toEqual(near([1, 0.5, 0, 0.5]));
});

it('points that are off stay', () => {
  const [a, b, ...rest] = straight.points;
  const path = { ...straight, points: [a, { ...b, off: true }, ...rest] };
  expect(softWeights(path, new Set([0]), 8)).toEqual(
    near([1, 0, 0.5, (1 + Math.cos((3 * Math.PI) / 4)) / 2, 0]),
  );
});
