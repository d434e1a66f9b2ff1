import fc from 'fast-check';
import { newShot } from '../../document/new-shot.js';
import { distance3, type Vec3 } from '../math/vec.js';
import { compilePath } from './compile-path.js';
import { nearestToPoint } from './nearest.js';

it('a place of a path is nearest to itself, however sharply straight runs turn back beside it', () => {
  const tenth = fc.integer({ min: -200, max: 200 }).map((value) => value / 10);
  const points = fc.uniqueArray(fc.tuple(tenth, tenth, tenth), {
    minLength: 3,
    maxLength: 6,
    comparator: (a, b) => distance3(a as Vec3, b as Vec3) < 1,
  });
  fc.assert(
    fc.property(points, fc.boolean(), fc.double({ min: 0, max: 1, noNaN: true }), (list, closed, part) => {
      const curve = compilePath(
        newShot({
          name: 'P',
          paths: [
            {
              id: 'p',
              name: 'P',
              basis: 'polyline',
              closed,
              points: list.map((position) => ({ position: position as Vec3 })),
            },
          ],
        }).paths[0],
      );
      const place: Vec3 = [0, 0, 0];
      curve.position(part * curve.length, place);
      expect(nearestToPoint(curve, place).gap).toBeLessThan(1e-6);
    }),
    { numRuns: 400 },
  );
});
