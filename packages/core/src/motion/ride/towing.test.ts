import { vec3 } from 'gl-matrix';
import { hangString } from '../../shot/edits/string.js';
import { checkShot } from '../../check/check-shot.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { even, onGround, placeOf, poseAt, shotOf, turnOf, waves } from '../../../test/shots.js';

const wheel = (node: string, x: number, z: number, steers = false) => ({
  node,
  centre: [x, 0.35, z] as Vec3,
  radius: 0.35,
  steers,
});
const truck = {
  id: 'truck',
  name: 'Truck',
  kind: 'vehicle' as const,
  chassis: { frontAxle: 2.6, rearAxle: 0, frontCoupling: 3.4, rearCoupling: -1.2 },
  wheels: [wheel('a', 0.8, 2.6, true), wheel('b', -0.8, 2.6, true), wheel('c', 0.8, 0), wheel('d', -0.8, 0)],
};
const twoAxled = {
  name: 'Trailer',
  kind: 'vehicle' as const,
  chassis: { frontAxle: 1, rearAxle: -1, frontCoupling: 1.9, rearCoupling: -1.6 },
  wheels: [wheel('e', 0.7, 1), wheel('f', -0.7, 1), wheel('g', 0.7, -1), wheel('h', -0.7, -1)],
};
const oneAxled = {
  name: 'Cart',
  kind: 'vehicle' as const,
  chassis: { frontAxle: 0, rearAxle: 0, frontCoupling: 2.2, rearCoupling: -1 },
  wheels: [wheel('i', 0.7, 0), wheel('j', -0.7, 0)],
};

/** Through bends of about 12 m radius. */
const lane = {
  id: 'p',
  name: 'P',
  basis: 'through' as const,
  points: (
    [
      [0, 0],
      [0, 15],
      [8, 26],
      [20, 26],
      [28, 36],
      [28, 52],
    ] as const
  ).map(([x, z]) => ({ position: [x - 14, 1, z - 26] as Vec3 })),
};
const ground = { mode: 'stick' as const, up: 4, down: 4, rise: 0, tilt: true };

const strung = () => {
  const shot = shotOf(
    [lane],
    [
      { ...truck, attachment: { path: 'p', anchor: 'rearAxle', pace: even(12, 55), ground } },
      { id: 'one', ...twoAxled },
      { id: 'two', ...oneAxled },
    ],
  );
  const first = hangString(shot, 'truck', { unit: 'one', count: 1, gap: 0 }).shot;
  const both = hangString(first, 'truck', { unit: 'two', count: 1, gap: 0 }).shot;
  return {
    ...both,
    riders: both.riders.map((rider) => ({
      ...rider,
      attachment: rider.attachment && { ...rider.attachment, ground },
    })),
  };
};

/** A point of a rider's own, ahead of its origin. */
function ahead(pose: Float64Array, metres: number): Vec3 {
  const way = vec3.transformQuat([0, 0, 0], [0, 0, metres], turnOf(pose));
  return vec3.add([0, 0, 0], placeOf(pose), way) as Vec3;
}

it('a trailer behind a road vehicle is towed by its coupling, and its front axle turns with the drawbar', () => {
  const { riders } = strung();
  expect(riders.map(({ attachment }) => attachment?.anchor)).toEqual(['rearAxle', 'frontAxle', 'frontAxle']);
  expect(riders[1].wheels.map(({ steers }) => steers)).toEqual([true, true, false, false]);
  // On rails it is not: there both axles are on the path.
  const rails = shotOf(
    [lane],
    [
      { ...truck, wheels: [], attachment: { path: 'p', anchor: 'bothAxles', pace: even(12, 55) } },
      { id: 'one', ...twoAxled },
    ],
  );
  expect(
    hangString(rails, 'truck', { unit: 'one', count: 1, gap: 0 }).shot.riders[1].attachment?.anchor,
  ).toBe('bothAxles');
});

it('on uneven ground couplings stay together, up and down as well', () => {
  const shot = strung();
  const hilly = onGround(waves((x, z) => 0.35 * Math.sin(x / 1.7) * Math.cos(z / 2.3) + 0.08 * x));
  const evaluated = evaluateShot(shot, hilly);
  for (let frame = 1; frame <= 97; frame += 1.5) {
    const [pulls, first, second] = ['truck', 'one', 'two'].map((id) => poseAt(evaluated, id, frame));
    expect(vec3.distance(ahead(pulls, -1.2), ahead(first, 1.9))).toBeLessThan(1e-6);
    expect(vec3.distance(ahead(first, -1.6), ahead(second, 2.2))).toBeLessThan(1e-6);
  }
});

it('nothing of a string that is towed slides; one on two axles is told to be', () => {
  const shot = strung();
  const level = {
    ...shot,
    riders: shot.riders.map((rider) => ({
      ...rider,
      attachment: rider.attachment && {
        ...rider.attachment,
        ground: { ...ground, mode: 'none' as const },
      },
    })),
  };
  const slide = (shot: typeof level) =>
    checkShot(evaluateShot(shot, NO_ASSETS)).filter(({ kind }) => kind === 'wheel-slide');
  expect(slide(level)).toEqual([]);
  const stiff = {
    ...level,
    riders: level.riders.map((rider, i) =>
      i === 1
        ? {
            ...rider,
            wheels: rider.wheels.map((one) => ({ ...one, steers: false })),
            attachment: rider.attachment && { ...rider.attachment, anchor: 'bothAxles' as const },
          }
        : rider,
    ),
  };
  expect(slide(stiff)).toMatchObject([{ rider: stiff.riders[1].id, fix: 'anchor' }]);
});
