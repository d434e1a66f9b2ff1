import fc from 'fast-check';
import { sampleShot } from '../bake/sample-shot.js';
import { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { evaluateShot } from './evaluate-shot.js';
import { NO_ASSETS } from './scene-assets.js';

const wheels = [2.4, 0].flatMap((z) =>
  [0.8, -0.8].map((x) => ({
    node: `wheel ${x} ${z}`,
    centre: [x, 0.4, z] as Vec3,
    radius: 0.4,
    steers: z > 0,
  })),
);
/** Four squares that meet in a ridge across the plan. */
const ridge = new GroundSurface({
  positions: Float64Array.from([-90, 0, -90, -90, 0, 90, 0, 6, -90, 0, 6, 90, 90, 0, -90, 90, 0, 90]),
  indices: Uint32Array.from([0, 1, 2, 2, 1, 3, 2, 3, 4, 4, 3, 5]),
});
const level = { ground: ridge, hierarchies: NO_ASSETS.hierarchies, physics: null };

const car = (id: string, part: Loose<Rider['attachment']> = {}, rest: Loose<Rider> = {}): Loose<Rider> => ({
  id,
  name: id,
  wheels,
  chassis: { frontAxle: 2.4, rearAxle: 0, frontCoupling: 3, rearCoupling: -1 },
  ...rest,
  attachment: {
    path: 'p',
    ground: { mode: 'stick', up: 20, down: 20 },
    pace: {
      keys: [
        { frame: 1, value: 0 },
        { frame: 60, value: 90 },
      ],
    },
    ...part,
  },
});
const shotOf = (riders: Loose<Rider>[]): Shot =>
  newShot({
    name: 't',
    range: { first: 1, last: 60 },
    ground: { model: 'm' },
    models: [{ id: 'm', name: 'Ridge', source: { file: 'm.glb' } }],
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'through',
        closed: true,
        points: Array.from({ length: 10 }, (_, i): { position: Vec3 } => ({
          position: [30 * Math.cos((i * Math.PI) / 5), 2, 20 * Math.sin((i * Math.PI) / 5)],
        })),
      },
    ],
    riders,
  });

it('riders of one kind stand on one way, and an edit of a pace leaves it', () => {
  const shot = shotOf([car('a'), car('b', { offset: { along: -9 } }), car('c', { offset: { side: 1 } })]);
  const fits = (of: Shot) => {
    const evaluated = evaluateShot(of, level);
    return of.riders.map((rider) => evaluated.contact(rider).groundFit);
  };
  const [a, b, c] = fits(shot);
  expect(a).not.toBeNull();
  expect(b).toBe(a);
  expect(c).not.toBe(a);
  const faster = {
    ...shot,
    riders: shot.riders.map((rider) => ({
      ...rider,
      attachment: rider.attachment && {
        ...rider.attachment,
        pace: {
          ...rider.attachment.pace,
          keys: rider.attachment.pace.keys.map((key) => ({ ...key, value: 2 * key.value })),
        },
      },
    })),
  };
  expect(fits(faster)[0]).toBe(a);
  const without = evaluateShot(shot, { ...level, ground: new GroundSurface(ridge.mesh) });
  expect(without.contact(shot.riders[0]).groundFit).not.toBe(a);
});

it('what is shared is what is made for a rider alone, whatever was evaluated before', () => {
  const kind = fc.record({
    side: fc.constantFrom(0, 1.5),
    yaw: fc.constantFrom(0, 90, 180),
    anchor: fc.constantFrom(
      'origin' as const,
      'rearAxle' as const,
      'frontAxle' as const,
      'bothAxles' as const,
    ),
    up: fc.constantFrom(0, 20),
    scale: fc.constantFrom(1, 1.4),
    towed: fc.boolean(),
  });
  const shot = shotOf([]);
  fc.assert(
    fc.property(fc.array(kind, { minLength: 2, maxLength: 3 }), (kinds) => {
      const riders = kinds.map(({ side, yaw, anchor, up, scale, towed }, i) =>
        car(
          `r${i}`,
          {
            anchor: towed && i > 0 ? 'frontAxle' : anchor,
            offset: { side, yaw },
            ground: { mode: 'stick', up, down: 20 },
            coupledTo: towed && i > 0 ? { rider: `r${i - 1}`, gap: 0.5 } : null,
          },
          { rest: { scale: [scale, scale, scale] } },
        ),
      );
      // On the same path as all shots before, and on a new one.
      const mixed = { ...shotOf(riders), paths: shot.paths };
      const alone = structuredClone(mixed);
      const [ours, theirs] = [mixed, alone].map((one) => {
        const evaluated = evaluateShot(one, level);
        const rolled = one.riders.map((rider) =>
          evaluated.contact(rider).wheels.map(({ turned }) => turned(40)),
        );
        return { poses: sampleShot(evaluated).riders, rolled };
      });
      expect(ours).toEqual(theirs);
    }),
    { numRuns: 15 },
  );
});
