import fc from 'fast-check';
import type { Planted } from '../../test/planted-fault.js';
import { PLANTED, plantedScene } from '../../test/planted.js';
import { circle, even } from '../../test/shots.js';
import { newShot } from '../document/new-shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { GroundSurface } from '../geometry/ground/ground-surface.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { checkShot } from './check-shot.js';

/** A turn about the up axis, and a move over the ground. */
interface Place {
  readonly turn: number;
  readonly x: number;
  readonly z: number;
}

const place = fc.record({
  turn: fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
  x: fc.double({ min: -120, max: 120, noNaN: true }),
  z: fc.double({ min: -120, max: 120, noNaN: true }),
});

function moved({ turn, x, z }: Place, [a, b, c]: readonly number[]): Vec3 {
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  return [x + cos * a + sin * c, b, z + cos * c - sin * a];
}

function movedMesh<T extends ArrayLike<number>>(at: Place, positions: T): number[] {
  return Array.from({ length: positions.length / 3 }, (_, i) =>
    moved(at, [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]]),
  ).flat();
}

/** A planted fault, placed elsewhere; and far from it a rider without findings. */
function elsewhere(planted: Planted, at: Place): ReturnType<typeof plantedScene> {
  const { shot, assets } = plantedScene(planted);
  const turned = [0, Math.sin(at.turn / 2), 0, Math.cos(at.turn / 2)] as const;
  const transform = {
    translation: [at.x, 0, at.z] as Vec3,
    rotation: [...turned] as [number, number, number, number],
  };
  const all = {
    ...shot,
    paths: shot.paths.map((path) => ({ ...path, transform: { ...path.transform, ...transform } })),
    riders: shot.riders.map((rider) => {
      const { attachment } = rider;
      const rest = {
        ...rider.rest,
        translation: moved(at, rider.rest.translation),
        rotation: transform.rotation,
      };
      const target = attachment?.facing.target;
      if (!attachment || !target?.point) return { ...rider, rest };
      const facing = { ...attachment.facing, target: { ...target, point: moved(at, target.point) } };
      return { ...rider, rest, attachment: { ...attachment, facing } };
    }),
  };
  const ring = {
    ...circle(30, true),
    id: 'sound',
    name: 'Sound',
    transform: { translation: [900, 30, 0] as Vec3 },
  };
  const laps = { unit: 'laps' as const, before: 'accumulate' as const, after: 'accumulate' as const };
  const sound = {
    id: 'sound',
    name: 'Sound',
    badge: 'Z9',
    attachment: { path: 'sound', pace: { ...laps, ...even(0, 1, 1, 98) } },
  };
  const whole = newShot({ ...all, paths: [...all.paths, ring], riders: [...all.riders, sound] });
  const { ground, staticSet } = planted;
  const surface = assets.ground;
  return {
    shot: whole,
    // Level ground is level in any rotation.
    assets:
      ground && surface
        ? {
            ...assets,
            ground: new GroundSurface({
              ...surface.mesh,
              positions: Float64Array.from(movedMesh(at, surface.mesh.positions)),
            }),
          }
        : assets,
    set: plantedScene({
      ...planted,
      staticSet: staticSet && {
        ...staticSet,
        positions: Float32Array.from(movedMesh(at, staticSet.positions)),
      },
    }).set,
  };
}

it('a fault of each kind is found wherever it is planted, and of nobody else', () => {
  fc.assert(
    fc.property(fc.constantFrom(...PLANTED), place, (planted, at) => {
      const { shot, assets, set } = elsewhere(planted, at);
      const found = checkShot(evaluateShot(shot, assets), set);
      expect(found.map(({ kind }) => kind)).toEqual([planted.kind]);
      expect(found[0]).toMatchObject(planted.said);
      expect(found[0].rider).not.toBe('sound');
    }),
    { numRuns: 3 * PLANTED.length },
  );
});
