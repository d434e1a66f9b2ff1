import type { Shot } from '@fleet-rail/core';
import { cure, demoShot, lookedOver, tags } from './support/checks.js';
import { openShotOf, settled, storedShot } from './support/desk.js';
import { expect, test } from './support/test.js';

/** All other kinds of faults, each with a rider of its own. */
function testCard({ models, riders }: Shot): object {
  const gait = riders.find(({ id }) => id === 'picker')?.gait;
  const walks = (more: object = {}) => ({
    kind: 'character',
    model: 'picker',
    gait: { ...gait, acts: [], idle: null, plant: false, ...more },
  });
  const line = (id: string, points: [number, number, number][], more = {}) => ({
    id,
    name: id,
    basis: 'polyline',
    points: points.map((position) => ({ position })),
    ...more,
  });
  const keys = (value: number, from = 0) => ({
    pace: {
      keys: [
        { frame: 1, value: from },
        { frame: 97, value },
      ],
    },
  });
  const rider = (id: string, path: string | null, attachment: object, more = {}) => ({
    id,
    name: id,
    badge: id.toUpperCase(),
    ...(path === null ? {} : { attachment: { path, ...keys(40), ...attachment } }),
    ...more,
  });
  const far = (n: number): [number, number, number][] => [
    [200 + 20 * n, 0, 0],
    [200 + 20 * n, 0, 40],
  ];
  const barrel = { model: 'barrel' };
  const camera = { kind: 'camera', camera: {} };
  const bend = {
    id: 'bend',
    name: 'bend',
    basis: 'bezier',
    points: [
      { position: [500, 5, 0], out: [0, 0, 2.7614] },
      { position: [505, 5, 5], in: [-2.7614, 0, 0], out: [2.7614, 0, 0] },
      { position: [510, 5, 10], in: [0, 0, -2.7614] },
    ],
  };
  return {
    name: 'Test card',
    fps: 24,
    range: { first: 1, last: 97 },
    models,
    ground: { model: 'orchard', nodes: ['grass', 'lane', 'ramp', 'footbridge'] },
    paths: [
      ...[0, 1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => line(`far-${n}`, far(n))),
      bend,
      {
        id: 'ring',
        name: 'ring',
        basis: 'through',
        closed: true,
        points: Array.from({ length: 16 }, (_, i) => ({
          position: [700 + 20 * Math.cos((i * Math.PI) / 8), 0, -20 * Math.sin((i * Math.PI) / 8)],
        })),
      },
      { id: 'point', name: 'point', basis: 'polyline', points: [{ position: [760, 0, 0] }] },
      line('behind', [
        [64, 0, -6],
        [64, 0, 6],
      ]),
      line('fast', [
        [600, 0, 0],
        [600, 0, 200],
      ]),
      // Over the grass at half a metre, clear of trees; and square across the bridge.
      line('float', [
        [-4, 0.5, -30],
        [4, 0.5, -30],
      ]),
      // Through the crown of a single tree.
      line('row', [
        [9, 1.9, 14.3],
        [33, 1.9, 14.3],
      ]),
      line('across', [
        [-9, 1.8, 0.1],
        [9, 1.8, -0.1],
      ]),
    ],
    riders: [
      rider('aims', 'far-0', { facing: { mode: 'aim' } }, camera),
      rider('helm', 'far-1', {}, { model: 'barrel', steering: { node: 'helm' } }),
      rider('stays', 'far-2', { pace: { keys: [] } }, barrel),
      rider(
        'shakes',
        'far-3',
        {
          bank: { mode: 'none' },
          offsetKeys: Array.from({ length: 13 }, (_, i) => ({ frame: 40 + 2 * i, yaw: i % 2 === 0 ? 0 : 6 })),
        },
        barrel,
      ),
      rider(
        'flips',
        'bend',
        { ...keys(15.7), bank: { mode: 'amount', amount: 40, limit: 80, window: 0 } },
        barrel,
      ),
      rider('spins', 'fast', keys(160), {
        kind: 'prop',
        model: 'barrel',
        wheels: [{ node: 'barrel', radius: 0.353, axle: '+x' }],
      }),
      rider('floats', 'float', keys(8), { kind: 'character', ...barrel }),
      rider('leaves', 'row', keys(20), barrel),
      rider('jumps', 'across', { ...keys(18), ground: { mode: 'stick', up: 4, down: 4 } }, barrel),
      rider('films', 'far-4', { offset: { rise: 0.4 } }, camera),
      rider(
        'blinks',
        'far-6',
        {
          offset: { rise: 2 },
          facing: { mode: 'aim', target: { point: [350, 2, 20] }, aim: { yawLimit: 20 } },
        },
        camera,
      ),
      // Past the barn, which hides what it films.
      rider(
        'hides',
        'behind',
        { ...keys(12), offset: { rise: 2 }, facing: { mode: 'aim', target: { point: [36, 1.5, 0] } } },
        camera,
      ),
      rider('hurries', 'far-7', keys(14), walks()),
      rider('strides', 'far-8', keys(12), walks({ plant: true, stride: 4.5 })),
      rider(
        'sinks',
        'far-9',
        {
          pace: {
            keys: [
              { frame: 1, value: 0 },
              { frame: 37, value: 2.4 },
              { frame: 97, value: 2.4 },
            ],
          },
        },
        walks({ idle: 'idle', blend: 0.8 }),
      ),
      rider(
        'skids',
        'ring',
        { ...keys(32), anchor: 'origin' },
        {
          kind: 'vehicle',
          model: 'barrel',
          chassis: { frontAxle: 0, rearAxle: -2, frontCoupling: 1, rearCoupling: -3 },
          wheels: [{ node: 'barrel', radius: 0.353, axle: '+x', centre: [0.4, 0.353, -2] }],
        },
      ),
      rider('nowhere', 'point', {}, { ...barrel, rest: { translation: [760, 2, 0] } }),
      { ...rider('post', null, {}), ...barrel, rest: { translation: [280.6, 0.4, 20] } },
    ],
  };
}

test('everything else that can be wrong is found, each with the rider it is wrong with', async ({
  page,
  request,
}) => {
  await openShotOf(page, request, testCard(await demoShot(request, 'Orchard, first try')), 'Check');
  await lookedOver(page);
  for (const name of [
    'Loose end AIMS',
    'Missing part HELM',
    'Never moves STAYS',
    'Shakes SHAKES',
    'Flip FLIPS',
    'Wheel too fast to see SPINS',
    'Off the ground FLOATS',
    'Through the set LEAVES',
    'Level jump JUMPS',
    'Camera too near FILMS POST',
    'Out of the picture BLINKS',
    'Hidden HIDES',
    'Quick steps HURRIES',
    'Out of reach STRIDES',
    'Feet sink SINKS',
    'Wheel slides SKIDS',
  ]) {
    const tag = tags(page, new RegExp(`^${name}`)).first();
    await expect(tag).toBeVisible();
    await tag.getByRole('button', { name: 'Show me' }).click();
    await expect(tag).toHaveAttribute('aria-current', 'true');
  }
  await expect(tags(page, /^No curve/)).toContainText('NOWHERE');
  await cure(page, /Flip FLIPS/, 'Bank more calmly');
  await cure(page, /Off the ground FLOATS/, 'Stick to the ground');
  await cure(page, /Level jump JUMPS/, 'Keep to its level');
  await cure(page, /Through the set LEAVES/, 'Keep clear');
  await cure(page, /Camera too near FILMS POST/, 'Keep a distance');
  await cure(page, /Out of the picture BLINKS/, 'Remove the turn limits');
  await cure(page, /Quick steps HURRIES/, 'Walk more slowly');
  await cure(page, /Out of reach STRIDES/, 'Use the stride of its clip');
  await cure(page, /Feet sink SINKS/, 'Lock its feet to the ground');
  await cure(page, /Wheel slides SKIDS/, 'Ride on the other axle');
  await cure(page, /Never moves STAYS/, 'Send it along the path');
});

test('a loop that does not close, and one whose last frame is its first again, are closed', async ({
  page,
  request,
}) => {
  const { models } = await demoShot(request, 'Orchard, first try');
  const ring = (id: string, x: number) => ({
    id,
    name: id,
    basis: 'through',
    closed: true,
    points: Array.from({ length: 12 }, (_, i) => ({
      position: [x + 9 * Math.cos((i * Math.PI) / 6), 0, 9 * Math.sin((i * Math.PI) / 6)],
    })),
  });
  const laps = (frame: number, value: number) => ({
    unit: 'laps',
    keys: [
      { frame: 1, value: 0 },
      { frame, value },
    ],
    before: 'accumulate',
    after: 'accumulate',
  });
  const rider = (id: string, path: string, pace: object) => ({
    id,
    name: id,
    badge: id.toUpperCase(),
    model: 'barrel',
    attachment: { path, pace },
  });
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Rings',
      range: { first: 1, last: 97 },
      loop: true,
      models,
      paths: [ring('left', 0), ring('right', 40)],
      riders: [rider('a', 'left', laps(98, 0.9)), rider('b', 'right', laps(97, 1))],
    },
    'Check',
  );
  await lookedOver(page);
  await cure(page, /Open loop A/, 'Whole laps');
  await cure(page, /Doubled frame B/, 'Move the key past the last frame');
  await expect(page.getByRole('status').filter({ hasText: 'No problems in 2 riders' })).toBeVisible();
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders[1].attachment?.pace.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [98, 1],
  ]);
});
