import { quat, vec3 } from 'gl-matrix';
import fc from 'fast-check';
import type { Quat, Vec3 } from '../math/vec.js';
import { boxMeetsStretch, depthOf, distanceToBox, type TurnedBox } from './turned-box.js';

function turnedBox(middle: Vec3, half: Vec3, turn: Quat): TurnedBox {
  const axes = ([0, 1, 2] as const).flatMap((k) => {
    const axis: Vec3 = [0, 0, 0];
    axis[k] = half[k];
    return [...vec3.transformQuat([0, 0, 0], axis, turn)];
  });
  return { numbers: Float64Array.from([...middle, ...axes]) };
}
const along: Quat = [0, 0, 0, 1];
const about = (axis: Vec3, degrees: number) =>
  quat.setAxisAngle([0, 0, 0, 1], axis, (degrees * Math.PI) / 180) as Quat;

it('boxes along the axes are as deep in each other as the least of what they share', () => {
  const a = turnedBox([0, 0, 0], [1, 1, 1], along);
  expect(depthOf(a, turnedBox([1.5, 0.2, 0], [1, 2, 3], along))).toBeCloseTo(0.5, 12);
  expect(depthOf(a, turnedBox([2.25, 0, 0], [1, 1, 1], along))).toBeCloseTo(-0.25, 12);
});

it('a corner that comes in is told apart along the edge’s way', () => {
  // A cube on its edge, √2 wide, over another's side.
  const tip = turnedBox([0, 1 + Math.SQRT2 - 0.3, 0], [1, 1, 1], about([0, 0, 1], 45));
  expect(depthOf(turnedBox([0, 0, 0], [5, 1, 5], along), tip)).toBeCloseTo(0.3, 12);
});

const place = fc.tuple(
  ...[0, 1, 2].map(() => fc.double({ min: -3, max: 3, noNaN: true })),
) as fc.Arbitrary<Vec3>;
const half = fc.tuple(
  ...[0, 1, 2].map(() => fc.double({ min: 0.2, max: 2, noNaN: true })),
) as fc.Arbitrary<Vec3>;
const turn = fc
  .tuple(place, fc.double({ min: 0, max: 180, noNaN: true }))
  .filter(([axis]) => vec3.length(axis) > 0.1)
  .map(([axis, degrees]) => about(vec3.normalize([0, 0, 0], axis) as Vec3, degrees));
const box = fc.record({ middle: place, size: half, turn });

it('two boxes share a place exactly where they are deep in each other', () => {
  fc.assert(
    fc.property(box, box, fc.array(place, { minLength: 40, maxLength: 40 }), (a, b, places) => {
      const [boxA, boxB] = [a, b].map(({ middle, size, turn: turned }) => turnedBox(middle, size, turned));
      const shared = places.some((one) => distanceToBox(boxA, one) === 0 && distanceToBox(boxB, one) === 0);
      // A place in both is enough; that none was found of forty says nothing.
      if (shared) expect(depthOf(boxA, boxB)).toBeGreaterThan(0);
      expect(depthOf(boxA, boxB) > 0).toBe(depthOf(boxB, boxA) > 0);
    }),
  );
});

it('a stretch through the middle is met, one that ends before a side is not', () => {
  fc.assert(
    fc.property(box, ({ middle, size, turn: turned }) => {
      const made = turnedBox(middle, size, turned);
      const way = vec3.transformQuat([0, 0, 0], [1, 0, 0], turned);
      const at = (far: number) => vec3.scaleAndAdd([0, 0, 0], middle, way, far) as Vec3;
      expect(boxMeetsStretch(made, at(-9), at(9))).toBe(true);
      expect(boxMeetsStretch(made, at(9), at(size[0] + 1e-6))).toBe(false);
      expect(distanceToBox(made, at(size[0] + 2))).toBeCloseTo(2, 9);
    }),
  );
});
