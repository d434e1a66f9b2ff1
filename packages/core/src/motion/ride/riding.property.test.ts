import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import fc from 'fast-check';
import { vec3 } from 'gl-matrix';
import { sampleShot } from '../../shot/bake/sample-shot.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { PathError } from '../../geometry/path/path-error.js';
import { POSE } from '../pose/pose.js';

const unit = fc.double({ min: -1, max: 1, noNaN: true });
/** Steps of a path: level ones, straight up and down, none at all (a doubled point), and loops over the top. */
const step: fc.Arbitrary<Vec3[]> = fc.oneof(
  fc.tuple(unit, unit, unit).map(([x, y, z]): Vec3[] => [[8 * x, 3 * y, 8 * z]]),
  unit.map((y): Vec3[] => [[0, 9 * y, 0]]),
  fc.constant<Vec3[]>([[0, 0, 0]]),
  fc.constant<Vec3[]>([
    [3, 3, 0],
    [-3, 3, 0],
    [-3, -3, 0.4],
    [3, -3, 0.4],
  ]),
);
const places = fc
  .array(step, { minLength: 2, maxLength: 6 })
  .map((steps) =>
    steps
      .flat()
      .reduce<Vec3[]>(
        (all, by) => [...all, vec3.add([0, 0, 0], all[all.length - 1], by) as Vec3],
        [[0, 0, 0]],
      ),
  );

const attachment = fc.record({
  facing: fc.oneof(
    fc.record({
      reference: fc.constantFrom('world' as const, 'path' as const),
      forward: fc.constantFrom('+z' as const, '-x' as const),
    }),
    fc.record({
      mode: fc.constant('aim' as const),
      target: fc.constant({ rider: 'other' }),
      aim: fc.record({
        deadZone: fc.constantFrom(0, 6),
        damping: fc.constantFrom(0, 0.3),
        influence: fc.constant([
          { frame: 5, value: 0 },
          { frame: 40, value: 1 },
        ]),
      }),
    }),
    fc.record({ mode: fc.constant('aim' as const), ahead: fc.constant(4) }),
  ),
  bank: fc.record({
    mode: fc.constantFrom('none' as const, 'amount' as const, 'physical' as const),
    amount: fc.constantFrom(1, 15),
    window: fc.constantFrom(0, 1, 5),
  }),
  influence: fc.constantFrom(
    [],
    [
      { frame: 10, value: 0 },
      { frame: 30, value: 1 },
    ],
  ),
  anchor: fc.constantFrom('origin' as const, 'bothAxles' as const),
});

it('poses are numbers, rotations are unit and keep their sign, on any path and by any set-up', () => {
  fc.assert(
    fc.property(
      places,
      fc.boolean(),
      fc.constantFrom('through', 'bspline', 'polyline'),
      attachment,
      fc.boolean(),
      (points, closed, basis, how, loop) => {
        const shot = newShot({
          name: 't',
          range: { first: 1, last: 60 },
          loop,
          paths: [
            {
              id: 'p',
              name: 'P',
              basis: basis as 'through',
              closed,
              points: points.map((position) => ({ position })),
            },
          ],
          riders: [
            {
              id: 'r',
              name: 'R',
              chassis: { frontAxle: 1, rearAxle: -1 },
              camera: {},
              attachment: {
                ...(how as unknown as Loose<Attachment>),
                path: 'p',
                pace: {
                  unit: 'laps',
                  keys: [
                    { frame: 1, value: 0 },
                    { frame: 60, value: 1 },
                  ],
                },
              },
            },
            { id: 'other', name: 'Other', rest: { translation: [1, 2, 3] } },
          ],
        });
        const evaluated = evaluateShot(shot, NO_ASSETS);
        fc.pre(!(evaluated.paths.get('p') instanceof PathError));
        const [poses] = sampleShot(evaluated).riders;
        expect(poses.every(Number.isFinite)).toBe(true);
        for (let at = 0; at < poses.length; at += POSE.size) {
          const turn = [...poses.subarray(at + 3, at + 7)] as Quat;
          expect(Math.hypot(...turn)).toBeCloseTo(1, 9);
          if (at === 0) continue;
          let dot = 0;
          turn.forEach((value, k) => (dot += value * poses[at - POSE.size + 3 + k]));
          expect(dot).toBeGreaterThanOrEqual(0);
        }
      },
    ),
    { numRuns: 100 },
  );
});
