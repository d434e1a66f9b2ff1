import { POSE } from '../../motion/pose/pose.js';
import { crossings } from './crossings.js';

/** Poses of a rider at distances along the z axis, and at offsets to the side. */
const riding = (distances: readonly number[], side: number) =>
  Float64Array.from(
    distances.flatMap((distance) => {
      const pose = new Array<number>(POSE.size).fill(0);
      pose[0] = side;
      pose[2] = distance;
      pose[POSE.distance] = distance;
      return pose;
    }),
  );

it('an overtaking is found between its frames, with its gap', () => {
  const [slow, fast] = [riding([10, 11, 12, 13], 0), riding([8, 10.5, 13, 15.5], 2)];
  // 8 + 2.5 t = 10 + t: at 4/3, 11.333 m along.
  expect(crossings(fast, slow, null)).toEqual([
    { sample: expect.closeTo(4 / 3, 12), distance: expect.closeTo(34 / 3, 12), gap: expect.closeTo(2, 12) },
  ]);
});

it('round a closed path a lap more is the same place', () => {
  const [one, other] = [riding([0, 30, 60, 90], 0), riding([5, 5, 5, 5], 0)];
  expect(crossings(one, other, 40).map(({ sample }) => sample)).toEqual([
    expect.closeTo(5 / 30, 12),
    expect.closeTo(1.5, 12),
    expect.closeTo(85 / 30, 12),
  ]);
  expect(crossings(one, other, null)).toHaveLength(1);
});

it('those that go along together or meet without passing on do not cross twice', () => {
  const one = riding([0, 1, 2, 3], 0);
  expect(crossings(one, riding([0, 1, 2, 3], 1), null)).toEqual([]);
  expect(crossings(one, riding([2, 2, 2, 2], 1), null)).toHaveLength(1);
});
