import type { Shot } from '@fleet-rail/core';
import { expect, test, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { choose, fill, openShotOf, settled, storedShot } from './support/desk.js';
import { readFileSync } from 'node:fs';

/** A shot of the demo, as the server keeps it. */
async function demoShot(request: APIRequestContext, name: string): Promise<Shot> {
  const list = (await (await request.get('/api/shots')).json()) as { id: string; name: string }[];
  const found = list.find((one) => one.name === name);
  if (found === undefined) throw new Error(`The demo has no shot "${name}"`);
  const { document } = await storedShot(request, found.id);
  // What is made of it is another shot.
  return { ...document, name: `A copy of ${name}` };
}

const tags = (page: Page, name: RegExp): Locator =>
  page.getByRole('list', { name: 'Findings' }).getByRole('listitem', { name });

/** Waits until the shot as it is was looked over. */
async function lookedOver(page: Page): Promise<void> {
  await settled(page);
  await expect(page.getByRole('status').filter({ hasText: 'looked over in' })).toBeVisible({
    timeout: 30_000,
  });
}

/** Takes a way out of the first finding of a name, and sees that there is less of it. */
async function cure(page: Page, name: RegExp, way: string): Promise<void> {
  const tag = tags(page, name).first();
  const before = await tags(page, name).count();
  expect(before).toBeGreaterThan(0);
  await tag.getByRole('button', { name: 'Ways out' }).click();
  const ways = tag.getByRole('group', { name: 'Ways out' });
  await expect(ways).toBeVisible({ timeout: 30_000 });
  const choice = ways.getByRole('radio', { name: way });
  if ((await choice.count()) > 0) await choice.click();
  await ways.getByRole('button', { name: way, exact: true }).last().click();
  await expect.poll(() => tags(page, name).count(), { timeout: 30_000 }).toBeLessThan(before);
}

test('a first try is looked over: filtered, shown, cured matter by matter, and kept so', async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const id = await openShotOf(page, request, await demoShot(request, 'Orchard, first try'), 'Check');
  await lookedOver(page);
  const stored = async () => {
    await settled(page);
    return (await storedShot(request, id)).document;
  };
  const rider = async (which: string) => (await stored()).riders.find((one) => one.id === which);

  // What is wrong with one rider, and of one kind.
  await choose(page, 'Rider', 'C5 Drone');
  await expect(tags(page, /C5/).first()).toBeVisible();
  await expect(tags(page, /H1$/)).toHaveCount(0);
  await choose(page, 'Rider', 'All riders');
  await choose(page, 'Kind', 'Too fast for the bend');
  await expect(tags(page, /./).first()).toHaveAccessibleName('Too fast for the bend H1');
  await choose(page, 'Kind', 'All kinds');
  await page.getByText('Warnings', { exact: true }).click();
  await expect(tags(page, /Jolt/)).toHaveCount(0);
  await expect(tags(page, /Under the ground/).first()).toBeVisible();
  await page.getByText('Warnings', { exact: true }).click();

  // Shown: rider and frame are chosen, and it stands in the run diagram.
  const low = tags(page, /Camera under the ground C5/);
  const [, frame] = /f (\d+)/.exec((await low.textContent()) ?? '') ?? [];
  await low.getByRole('button', { name: 'Show me' }).click();
  await expect(page.getByText(`frame ${frame} / 480`)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('Drone');
  await expect(
    page
      .getByRole('group', { name: 'Findings on the line' })
      .locator('title')
      .filter({ hasText: 'Camera under the ground' }),
  ).toHaveCount(1);

  await cure(page, /Camera under the ground C5/, 'Ride higher');
  expect((await rider('drone'))?.hitch?.offset.rise).toBeGreaterThan(0);
  await cure(page, /Tail first K4/, 'Turn it round');
  expect((await rider('kestrel'))?.hitch?.offset.yaw).toBe(0);
  await cure(page, /Wheels stand still T3/, 'Take the wheels that were found');
  expect((await rider('trailer-2'))?.wheels).toHaveLength(4);
  await cure(page, /Wheel radius T2/, 'Measure the wheels');
  expect((await rider('trailer-1'))?.wheels[0].radius).toBeCloseTo(0.36, 3);
  await cure(page, /Feet slide P11/, 'Lock its feet to the ground');
  expect((await rider('picker'))?.gait?.plant).toBe(true);
  await cure(page, /Idle cue G10/, 'Switch the cue off');
  expect((await stored()).cues.filter(({ off }) => off)).toHaveLength(1);
  await cure(page, /Past the end B13/, 'Reach the end');
  await cure(page, /Overlap B12 B13/, 'Start B12 later');
  await cure(page, /Corner B12/, 'Round the corners');
  expect((await stored()).paths.find((path) => path.id === 'chute')?.basis).toBe('bezier');
  await cure(page, /Too fast for the bend H1/, 'Slow into the bend');
  expect((await rider('hauler'))?.hitch?.pace.mode).toBe('drive');
  await expect(tags(page, /Jolt H1/)).toHaveCount(0);
  await cure(page, /Under the ground K6/, 'Ride higher');
  await expect(page.getByRole('list', { name: 'Cured' })).toContainText('K6 is under the ground');

  // Each was one step.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(tags(page, /Under the ground K6/).first()).toBeVisible();
});

test('what is let be says why, is not counted, and comes back when it gets worse', async ({
  page,
  request,
}) => {
  const shot = await demoShot(request, 'Orchard, first try');
  const barrel = shot.riders.find(({ id }) => id === 'barrel-13');
  const alone = { ...shot, riders: [barrel], cues: [], cuts: [] };
  const id = await openShotOf(page, request, alone, 'Check');
  await lookedOver(page);
  const count = page.getByRole('link', { name: /^Check/ });
  await expect(count).toContainText('2');
  await tags(page, /Past the end/)
    .getByRole('button', { name: 'Let be…' })
    .click();
  await page.getByRole('textbox', { name: 'Why it may stay' }).fill('It falls into the cart');
  await page.keyboard.press('Enter');
  await expect(tags(page, /Past the end/)).toContainText('Let be: It falls into the cart');
  await expect(count).toContainText('1');
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.checks.waived).toMatchObject([
    {
      kind: 'past-end',
      rider: 'barrel-13',
      reason: 'It falls into the cart',
      figure: expect.closeTo(2.98, 2),
    },
  ]);
  // A limit of the shot’s own: the chute’s corner of 12° is no matter any more.
  await page.getByRole('button', { name: 'Limits' }).click();
  const corner = page.getByRole('textbox', { name: 'Corner', exact: true });
  await corner.fill('15');
  await corner.press('Enter');
  await expect(tags(page, /Corner/)).toHaveCount(0);
  await expect(page.getByRole('status').filter({ hasText: 'Nothing found in 1 rider' })).toBeVisible();

  const report = page.waitForEvent('download');
  await page.getByRole('button', { name: 'JSON', exact: true }).click();
  const saved = JSON.parse(readFileSync(await (await report).path(), 'utf8')) as object[];
  expect(saved).toMatchObject([{ kind: 'past-end', waived: 'It falls into the cart' }]);

  // Sent further still it is worse than what was let be.
  const further = (await storedShot(request, id)).document;
  const hitch = further.riders[0].hitch;
  const worse = {
    ...further,
    riders: [
      {
        ...further.riders[0],
        hitch: hitch && {
          ...hitch,
          pace: {
            ...hitch.pace,
            keys: hitch.pace.keys.map((key, i) => (i === 1 ? { ...key, value: 30 } : key)),
          },
        },
      },
    ],
  };
  await openShotOf(page, request, worse, 'Check');
  await lookedOver(page);
  await expect(tags(page, /Past the end/)).not.toContainText('Let be:');
});

/** Everything else that can be wrong, each with a rider of its own. */
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
  const rider = (id: string, path: string | null, hitch: object, more = {}) => ({
    id,
    name: id,
    badge: id.toUpperCase(),
    ...(path === null ? {} : { hitch: { path, ...keys(40), ...hitch } }),
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
      // Through the crown of a tree that stands by itself.
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
      // Past the barn, which stands between it and what it films.
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
  test.setTimeout(240_000);
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
  await cure(page, /Camera too near FILMS POST/, 'Keep away');
  await cure(page, /Out of the picture BLINKS/, 'Turn as far as it takes');
  await cure(page, /Quick steps HURRIES/, 'Walk more slowly');
  await cure(page, /Out of reach STRIDES/, 'Take the stride of its clip');
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
    hitch: { path, pace },
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
  await cure(page, /Open loop A/, 'Go round whole times');
  await cure(page, /Doubled frame B/, 'Move the key past the last frame');
  await expect(page.getByRole('status').filter({ hasText: 'Nothing found in 2 riders' })).toBeVisible();
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders[1].hitch?.pace.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [98, 1],
  ]);
});

test('the orchard as it is handed over has nothing to be told of', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Orchard loop' }).click();
  await page.getByRole('link', { name: /^Check/ }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'Nothing found in 11 riders; looked over in' }),
  ).toBeVisible({
    timeout: 30_000,
  });
});

test('a camera is kept above the ground and away from another, and the check’s way out does the same', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const id = await openShotOf(page, request, orchard, 'Facing');
  await page.getByRole('radio', { name: 'C5 Drone' }).click();
  const clearance = page.getByRole('region', { name: 'Clearance' });
  // Over the bridge it comes down to 3.42 m above it, at frame 48.
  await expect(clearance).toContainText('Least 3.4');
  await clearance.getByText('Keep above the ground').click();
  const least = clearance.getByRole('slider', { name: 'Height over the ground, at least' });
  await least.press('PageUp');
  await least.press('PageUp');
  await least.press('PageUp');
  await settled(page);
  await least.press('PageUp');
  await expect(least).toHaveAttribute('aria-valuenow', '5');
  await expect(clearance).toContainText(/Least 5\.\d+ m/);
  await choose(page, 'Keep a distance to', 'H1 Hauler');
  await fill(page, 'Distance to H1', '16 m');
  await expect(clearance).toContainText(/Least 1[67](\.\d+)? m/);
  await settled(page);
  const drone = (await storedShot(request, id)).document.riders.find((rider) => rider.id === 'drone');
  expect(drone?.clearance).toEqual({ floor: 5, from: [{ rider: 'hauler', distance: 16 }], ease: 1 });

  // What the bake says is what is kept: every frame as far off as was asked for.
  const rows = (await (await request.get(`/api/shots/${id}/files/csv`)).text()).trim().split('\n').slice(1);
  const places = (which: string) =>
    rows
      .map((row) => row.split(','))
      .filter(([, , rider, part]) => rider === which && part === '')
      .map((cells) => cells.slice(4, 7).map(Number));
  const [camera, hauler] = [places('drone'), places('hauler')];
  expect(camera).toHaveLength(1080);
  camera.forEach((place, i) =>
    expect(Math.hypot(...place.map((value, k) => value - hauler[i][k]))).toBeGreaterThan(16 - 1e-6),
  );

  await openShotOf(page, request, await demoShot(request, 'Orchard, first try'), 'Check');
  await lookedOver(page);
  await cure(page, /Camera under the ground C5/, 'Keep clear of the ground');
});
