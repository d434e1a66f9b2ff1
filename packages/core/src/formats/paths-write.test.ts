import fc from 'fast-check';
import { newShot } from '../document/new-shot.js';
import type { ShotPath } from '../document/shot-path.js';
import { distance3, type Vec3 } from '../geometry/math/vec.js';
import { compilePath } from '../geometry/path/compile-path.js';
import type { CompiledPath } from '../geometry/path/compiled-path.js';
import { deviation } from '../geometry/path/deviation.js';
import { readPaths } from './paths-read.js';
import { PATH_KINDS } from './format-facts.js';
import { writePath } from './paths-write.js';

const BASES = ['bezier', 'bspline', 'nurbs', 'through', 'polyline'] as const;
const options = { scale: 1, fps: 24, firstFrame: 1, tolerance: 1e-4 };

const pathOf = (points: Vec3[], basis: (typeof BASES)[number], closed: boolean): ShotPath =>
  newShot({
    name: 'P',
    paths: [
      {
        id: 'p',
        name: 'Way & "back"',
        basis,
        closed,
        degree: 3,
        points: points.map((position) => ({ position })),
        transform: { translation: [3, 1, -2], rotation: [0, 0.6, 0, 0.8], scale: [1, 1, 2] },
      },
    ],
  }).paths[0];

/** Places at even distances, both ends included. */
function placesOf(curve: CompiledPath, count: number): Vec3[] {
  return Array.from({ length: count + 1 }, (_, i) => {
    const place: Vec3 = [0, 0, 0];
    curve.position((curve.length * i) / count, place);
    return place;
  });
}

it('any path comes back within the tolerance from every kind of file', async () => {
  const place = fc.tuple(
    ...[0, 1, 2].map(() => fc.integer({ min: -200, max: 200 }).map((tenths) => tenths / 10)),
  ) as fc.Arbitrary<Vec3>;
  const points = fc.uniqueArray(place, {
    minLength: 4,
    maxLength: 7,
    comparator: (a, b) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 0.5,
  });
  const within = 0.01;
  await fc.assert(
    fc.asyncProperty(points, fc.constantFrom(...BASES), fc.boolean(), async (list, basis, closed) => {
      const path = pathOf(list, basis, closed);
      const curve = compilePath(path);
      for (const kind of PATH_KINDS) {
        const { bytes } = await writePath(path, kind, within);
        const { paths } = await readPaths(bytes, `p.${kind}`, options);
        expect(paths).toHaveLength(1);
        // A table has points, and a smooth curve goes through them.
        const read = kind === 'csv' ? { ...paths[0], basis: 'polyline' as const } : paths[0];
        const [mine, theirs] = [placesOf(curve, 120), placesOf(compilePath(read), 3000)];
        const spacing = curve.length / 3000;
        for (const place of mine)
          expect(Math.min(...theirs.map((other) => distance3(place, other)))).toBeLessThan(within + spacing);
      }
    }),
    { numRuns: 6, endOnFailure: true },
  );
}, 60_000);

it('what cubics can say is exact in a drawing, heights and name included', async () => {
  const path = pathOf(
    [
      [0, 0, 0],
      [10, 4, 0],
      [10, 2, 10],
    ],
    'through',
    false,
  );
  const { bytes } = await writePath(path, 'svg', 0.5);
  const [again] = (await readPaths(bytes, 'p.svg', options)).paths;
  expect(again.name).toBe('Way & "back"');
  expect(deviation(compilePath(path), compilePath(again))).toBeLessThan(1e-8);
});
