import { testWalker, STRIDE } from '../../../test/walker.js';
import { newShot } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import { withFacing } from './face-anew.js';

const riderOf = (fields: object): Rider =>
  newShot({
    name: 'F',
    paths: [{ id: 'p', name: 'P', points: [{ position: [0, 0, 0] }, { position: [0, 0, 9] }] }],
    riders: [{ id: 'r', name: 'R', attachment: { path: 'p' }, ...fields }],
  } as unknown as Parameters<typeof newShot>[0]).riders[0];

const wheel = (node: string, x: number, z: number, steers: boolean) => ({
  node,
  centre: [x, 0.4, z],
  radius: 0.4,
  axle: '+x',
  steers,
  drives: !steers,
});

it('a flipped nose takes axles and steering with it, and flipped again all is as it was', () => {
  const rider = riderOf({
    chassis: { frontAxle: 2, rearAxle: 0, frontCoupling: 2.5, rearCoupling: -0.7 },
    wheels: [
      wheel('a', 0.8, 2, true),
      wheel('b', -0.8, 2, true),
      wheel('c', 0.8, 0, false),
      wheel('d', -0.8, 0, false),
    ],
  });
  const flipped = withFacing(rider, '-z', '+y', null);
  expect(flipped.attachment?.facing).toMatchObject({ forward: '-z', up: '+y' });
  expect(flipped.chassis).toEqual({ frontAxle: 0, rearAxle: -2, frontCoupling: 0.7, rearCoupling: -2.5 });
  expect(flipped.wheels.map(({ steers, drives, axle }) => [steers, drives, axle])).toEqual([
    [false, true, '-x'],
    [false, true, '-x'],
    [true, false, '-x'],
    [true, false, '-x'],
  ]);
  expect(withFacing(flipped, '+z', '+y', null)).toEqual(rider);
});

it('a figure whose nose is put right has its stride and its feet', () => {
  const walker = testWalker();
  const rider = riderOf({
    kind: 'character',
    attachment: { path: 'p', facing: { forward: '-z' } },
    gait: { clip: 'walk', stride: 0.5, feet: [] },
  });
  const { gait } = withFacing(rider, '+z', '+y', walker);
  expect(gait?.stride).toBeCloseTo(STRIDE, 2);
  expect(gait?.feet.map(({ node }) => node)).toEqual(['foot_l', 'foot_r']);
});
