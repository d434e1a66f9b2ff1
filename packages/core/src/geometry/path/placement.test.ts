import fc from 'fast-check';
import { distance3, type Quat, type Vec3 } from '../math/vec.js';
import { toLocal, toWorld } from './placement.js';

const quarterLeft: Quat = [0, Math.SQRT1_2, 0, Math.SQRT1_2];

it('scales first, then turns, then moves', () => {
  const transform = { translation: [10, 0, 0] as Vec3, rotation: quarterLeft, scale: [1, 1, 3] as Vec3 };
  expect(distance3(toWorld(transform, [0, 0, 1]), [13, 0, 0])).toBeLessThan(1e-12);
});

it('there and back is where it was, for any placement', () => {
  const number = fc.double({ min: -50, max: 50, noNaN: true });
  const triple = fc.tuple(number, number, number);
  const scale = fc.double({ min: 0.1, max: 5, noNaN: true });
  fc.assert(
    fc.property(triple, triple, triple, fc.tuple(scale, scale, scale), (place, translation, turn, sizes) => {
      const size = Math.hypot(...turn, 1);
      const rotation = [...turn, 1].map((value) => value / size) as Quat;
      const transform = { translation, rotation, scale: sizes };
      expect(distance3(toLocal(transform, toWorld(transform, place)), place)).toBeLessThan(1e-9);
    }),
  );
});

it('a rotation that is not quite a unit is taken as one', () => {
  const transform = {
    translation: [0, 0, 0] as Vec3,
    rotation: [0, 0, 0, 1.0005] as Quat,
    scale: [1, 1, 1] as Vec3,
  };
  expect(toWorld(transform, [1, 2, 3])).toEqual([1, 2, 3]);
});
