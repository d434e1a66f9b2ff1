import { readFile } from 'node:fs/promises';
import { WebIO } from '@gltf-transform/core';
import type { Page } from '@playwright/test';
import { demoShot } from './support/checks.js';
import {
  boardNumber,
  chooseFile,
  fill,
  goTo,
  goToFrame,
  openShotOf,
  settled,
  storedShot,
} from './support/desk.js';
import { along, lane, riding } from './support/lane.js';
import { expect, test } from './support/test.js';

const range = { first: 1, last: 121 };
const shot = (fields: object = {}) => ({
  name: 'Built',
  range,
  paths: [lane],
  riders: [riding(along)],
  ...fields,
});
const layAlong = (page: Page) => page.getByRole('region', { name: 'Dressing' });

test('posts are laid from the catalogue, their ends dragged along the path, and given out alone', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, shot(), 'Path');
  await layAlong(page).getByRole('button', { name: 'Add posts' }).click();
  const card = page.getByRole('group', { name: 'Posts', exact: true });
  // 60 m in steps of 2.5 m, on both sides.
  await expect(card.getByRole('status')).toHaveText('50 pieces, 2.500 m apart.');
  await fill(page, 'Spacing', '7 m');
  // Nine steps of 6.667 m are nearest to 7 m.
  await expect(card.getByRole('status')).toHaveText('20 pieces, 6.667 m apart.');
  const end = page.getByRole('slider', { name: 'Posts ends' });
  await end.focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await expect(end).toHaveAttribute('aria-valuetext', '58 m');
  const grip = page.getByRole('slider', { name: 'Posts begins' });
  const from = await grip.boundingBox();
  const to = await end.boundingBox();
  if (!from || !to) throw new Error('The ends are not seen.');
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2 + from.width / 2, (from.y + to.y) / 2 + from.height / 2, {
    steps: 4,
  });
  await page.mouse.up();
  await settled(page);
  const [laid] = (await storedShot(request, id)).document.dressing;
  expect(laid).toMatchObject({ path: 'lane', kind: 'pieces', every: 7, fit: true, both: true, to: 58 });
  expect(laid.from).toBeGreaterThan(10);
  expect(laid.from).toBeLessThan(50);
  const download = page.waitForEvent('download');
  await card.getByRole('button', { name: 'Download as GLB' }).click();
  const bytes = await readFile(await (await download).path());
  const root = (await new WebIO().readBinary(new Uint8Array(bytes))).getRoot();
  const posts =
    root
      .listNodes()
      .find((node) => node.getName() === 'Posts')
      ?.listChildren() ?? [];
  const steps = Math.round((58 - laid.from) / 7);
  expect(posts).toHaveLength(2 * (steps + 1));
  for (const post of posts) expect(Math.abs(post.getTranslation()[0])).toBeCloseTo(3.4, 5);
  // One drag is one step back.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.dressing[0].from).toBe(0);
});

test('a road is laid over a valley, riders stand on it, and its profile comes from a drawing', async ({
  page,
  request,
}) => {
  const sticks = { ...riding(along), attachment: { path: 'lane', pace: along, ground: { mode: 'stick' } } };
  const id = await openShotOf(page, request, shot({ riders: [sticks] }), 'Path');
  await layAlong(page).getByRole('button', { name: 'Add road' }).click();
  await fill(page, 'Up', '0.5 m');
  await expect(page.getByRole('checkbox', { name: 'Riders stand on it' })).toBeChecked();
  // Away from the road's beginning, where half of its wheels would be on it.
  await goToFrame(page, 25);
  // The road's middle is 6 cm higher than its edges, and half a metre over the path.
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0.56, 2);
  const corner = page.getByRole('slider', { name: 'Corner 3 of the profile' });
  await corner.focus();
  await corner.press('Shift+ArrowUp');
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0.66, 1);
  const svg = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 10 H40 V14 H0 Z"/></svg>';
  await chooseFile(page, 'Profile from an SVG', {
    name: 'slab.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(svg),
  });
  // As wide as the road, 6.8 m, and a tenth of that high; riders drive on its top.
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0.5 + 0.68, 2);
  await settled(page);
  const [road] = (await storedShot(request, id)).document.dressing;
  expect(road).toMatchObject({ kind: 'profile', ground: true, ring: true });
  expect(road.profile).toHaveLength(4);
  await page.getByText('Riders stand on it').click();
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0, 2);
  // A path that goes takes along what lies on it.
  await page.getByRole('button', { name: 'Delete Lane' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Go back to where they were before' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.dressing).toEqual([]);
});

test('forces pull a ball along: it lags, the desk and two bakes agree to the last digit, and undo takes them away', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, shot(), 'Contact');
  await page.getByRole('button', { name: 'Forces', exact: true }).click();
  await page.getByRole('radio', { name: 'Forces' }).click();
  await page.getByRole('button', { name: 'Swings wide' }).click();
  await fill(page, 'Radius', '0.4 m');
  await expect(page.getByText(/It lags by \d+\.\d+ m at most, at frame \d+\./)).toBeVisible();
  await goToFrame(page, 121);
  await settled(page);
  const lagged = await boardNumber(page, 'Distance');
  // Its place is at 60 m.
  expect(lagged).toBeLessThan(59.8);
  const bake = async () => (await request.get(`/api/shots/${id}/files/csv`)).text();
  const [first, second] = [await bake(), await bake()];
  expect(second).toBe(first);
  const rows = first
    .trim()
    .split('\n')
    .slice(1)
    .map((row) => row.split(','));
  expect(Number(rows[120][11])).toBeCloseTo(lagged, 2);
  // It rests on the ground by its radius, whatever way it is turned.
  const [x, y, z, w] = rows[120].slice(7, 11).map(Number);
  const middle = Number(rows[120][5]) + 0.4 * (1 - 2 * (x * x + z * z));
  expect(middle).toBeCloseTo(0.4, 1);
  expect(Math.hypot(x, y, z, w)).toBeCloseTo(1, 9);
  await page.getByRole('radio', { name: 'Its ride exactly' }).click();
  await expect.poll(() => boardNumber(page, 'Distance')).toBe(60);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => boardNumber(page, 'Distance')).toBe(lagged);
});

test('the loose barrels of the demo go on from each other without a gap', async ({ page, request }) => {
  const barrels = await demoShot(request, 'Barrels for ever');
  await openShotOf(page, request, barrels, 'Contact');
  await page.getByRole('radio', { name: 'L5 Loose barrel' }).click();
  await expect(page.getByText('Its relay continues without a gap.')).toBeVisible();
});

test('a part that hangs swings back where its rider sets off, on stage and in the file', async ({
  page,
  request,
}) => {
  const models = (await (await request.get('/api/models')).json()) as { id: string; fileName: string }[];
  const asset = models.find(({ fileName }) => fileName === 'lamp.glb')?.id;
  const faster = {
    keys: [
      { frame: 1, value: 0, ease: 'smooth' },
      { frame: 121, value: 60 },
    ],
  };
  const id = await openShotOf(
    page,
    request,
    shot({
      models: [{ id: 'lamp', name: 'Lamp', source: { asset } }],
      riders: [{ ...riding(faster), model: 'lamp' }],
    }),
    'Contact',
  );
  await page.getByRole('button', { name: 'Hanging parts' }).click();
  await page.getByRole('button', { name: 'Add a hanging part' }).click();
  await expect(page.getByRole('group', { name: 'Hanging lantern' })).toBeVisible();
  await settled(page);
  const csv = await (await request.get(`/api/shots/${id}/files/csv`)).text();
  const swings = csv
    .split('\n')
    .filter((row) => row.includes(',lantern,'))
    .map((row) => {
      const [x, , , w] = row.split(',').slice(7, 11).map(Number);
      return (2 * Math.atan2(x, w) * 180) / Math.PI;
    });
  expect(swings).toHaveLength(121);
  expect(swings[0]).toBeCloseTo(0, 3);
  // It hangs back as it gets faster, and forward as it slows down.
  expect(Math.max(...swings.slice(0, 60))).toBeGreaterThan(5);
  expect(Math.min(...swings.slice(61))).toBeLessThan(-5);
});

test('a spray is begun by its looks, counted, told in the file, and refused with its place where it is wrong', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, shot(), 'Contact');
  await page.getByRole('button', { name: 'Spray', exact: true }).click();
  await page.getByRole('group', { name: 'Sprays' }).getByRole('button', { name: 'Water' }).click();
  await fill(page, 'Rate', '24');
  await fill(page, 'Life', '0.5 s');
  // Five seconds, both ends counted.
  await expect(page.getByText('121 particles, 12 at once.')).toBeVisible();
  await page.getByRole('button', { name: 'Burst at this frame' }).click();
  await expect(page.getByText(/^141 particles/)).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[0].emitter).toMatchObject({
    rate: 24,
    life: 0.5,
    bursts: [{ frame: 1, count: 20 }],
  });
  const csv = await (await request.get(`/api/shots/${id}/files/csv`)).text();
  expect(csv.split('\n').filter((row) => row.startsWith('1,0,r,particle '))).toHaveLength(21);
  const glb = new Uint8Array(await (await request.get(`/api/shots/${id}/files/glb`)).body());
  const root = (await new WebIO().readBinary(glb)).getRoot();
  const sprayed = root.listNodes().find((node) => node.getName() === 'Runner spray');
  expect(sprayed?.getExtras()).toMatchObject({ particles: 141 });
  await goTo(page, 'Contact');
  await page.getByRole('group', { name: 'Sprays' }).getByRole('button', { name: 'Nothing' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].emitter).toBeNull();
  const wrong = { ...document, riders: [{ ...document.riders[0], emitter: { from: 'part' } }] };
  const refused = await request.post('/api/shots', { data: { document: wrong } });
  expect(refused.status()).toBe(422);
  expect(await refused.text()).toContain('emitter.node');
});
