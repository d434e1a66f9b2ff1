import { WebIO } from '@gltf-transform/core';
import { expect, test, type Page } from '@playwright/test';
import {
  boardNumber,
  choose,
  chooseFile,
  fill,
  goTo,
  goToFrame,
  importPaths,
  openNewShot,
  openShotOf,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, straightLane, wagonModel } from './support/files.js';
import { dragBy } from './support/plan.js';

const GRAVITY = 9.80665;

/** A circle of 20 m radius that starts at x = −20 along +Z and turns left: 125.66 m round. */
const circle = {
  id: 'ring',
  name: 'Ring',
  basis: 'nurbs',
  degree: 2,
  knots: [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
  points: Array.from({ length: 9 }, (_, i) => {
    const reach = i % 2 === 0 ? 20 : 20 * Math.SQRT2;
    const a = (i * Math.PI) / 4;
    return {
      position: [-reach * Math.cos(a), 0, reach * Math.sin(a)],
      weight: i % 2 === 0 ? 1 : Math.SQRT1_2,
    };
  }),
};
const straight = {
  id: 'lane',
  name: 'Lane',
  basis: 'polyline',
  points: [{ position: [0, 0, 0] }, { position: [0, 0, 60] }],
};
const range = { first: 1, last: 121 };
/** Once round, or along, in five seconds. */
const once = {
  unit: 'laps',
  keys: [
    { frame: 1, value: 0 },
    { frame: 121, value: 1 },
  ],
};
const chassis = { frontAxle: 1, rearAxle: -1, frontCoupling: 1.5, rearCoupling: -1.5 };

const land = (page: Page, path: string) =>
  page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: path }).click();
const accept = (page: Page) => page.getByRole('button', { name: 'Attach here' }).click();

test('a model with wheels of odd names faces the right way at once; attach and facing by keyboard alone', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Odd wheels');
  await importPaths(page, straightLane);
  await uploadModel(page, await wagonModel());
  await expect(page.getByRole('radio', { name: 'W1 Wagon' })).toBeVisible();
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: 'straight' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Attach here' })).toBeFocused();
  await page.keyboard.press('Enter');
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders[0].hitch?.facing).toMatchObject({ forward: '+x', up: '+y' });
  expect(riders[0].chassis).toEqual({
    frontAxle: 1.2,
    rearAxle: -1.2,
    frontCoupling: 2.05,
    rearCoupling: -2,
  });
  // The lane runs along +Z: heading 0.
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);

  // Away from the field, so that the digit is a key of the desk.
  await page.getByRole('link', { name: 'Attach', exact: true }).focus();
  await page.keyboard.press('3');
  await expect(page.getByRole('heading', { name: 'Facing', level: 2 })).toBeVisible();
  await expect(
    page.getByText(/Found in the model: nose \+X, roof \+Y, surely; told by 4 wheels/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Flip nose' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);
  await expect(page.getByRole('img', { name: /the nose of Wagon is −X/ })).toBeVisible();
  await page.getByRole('button', { name: 'Face as found' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Turn left', exact: true }).focus();
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(90);
  await page.getByRole('radio', { name: 'By amount' }).focus();
  await page.keyboard.press('Space');
  await settled(page);
  const { hitch } = (await storedShot(request, id)).document.riders[0];
  expect(hitch).toMatchObject({
    facing: { forward: '+x' },
    offset: { yaw: 90 },
    bank: { mode: 'amount', amount: 12 },
  });
});

test('a side clicked on the turntable is the nose', async ({ page, request }) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Turntable',
      paths: [straight],
      models: [{ id: 'm', name: 'Hauler', source: { file: 'hauler.glb' } }],
      riders: [{ id: 'r', name: 'Hauler', model: 'm', hitch: { path: 'lane' } }],
    },
    'Facing',
  );
  const table = page.getByRole('img', { name: /Turntable/ });
  // Seen from its front and left, the hauler's roof is above the middle and its left side to the right.
  await expect(async () => {
    await table.click({ position: { x: 175, y: 92 } });
    await expect(page.getByRole('img', { name: /nose of Hauler is \+X/ })).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].hitch?.facing).toMatchObject({
    forward: '+x',
    up: '+y',
  });
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);
});

test('a landing starts part-way, against the path, at a speed; or keeps the place it has', async ({
  page,
  request,
}) => {
  const rest = { translation: [7, 1, 20] };
  const id = await openShotOf(
    page,
    request,
    { name: 'Landings', range, paths: [straight], riders: [{ id: 'a', name: 'Anna', badge: 'A1', rest }] },
    'Attach',
  );
  await land(page, 'Lane');
  await expect(page.getByText(/show where A1 lands on Lane, midway, and the end/)).toBeVisible();
  await expect(page.getByText('Lands here')).toBeVisible();
  await fill(page, 'of the path', '75');
  await page.getByRole('radio', { name: 'Against' }).click();
  await page.getByRole('radio', { name: 'At a speed' }).click();
  await fill(page, 'Speed', '36 km/h');
  await fill(page, 'From frame', '25');
  await accept(page);
  await settled(page);
  const first = (await storedShot(request, id)).document.riders[0].hitch;
  // 45 m at 10 m/s from frame 25 on: 108 frames later it is at the start.
  expect(first?.pace).toMatchObject({
    unit: 'metres',
    keys: [
      { frame: 25, value: 45 },
      { frame: 133, value: 0 },
    ],
  });
  await goToFrame(page, 37);
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(40, 2);
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(180);

  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await land(page, 'Lane');
  await page.getByText('Keep the place it has').click();
  await accept(page);
  await settled(page);
  const kept = (await storedShot(request, id)).document.riders[0].hitch;
  expect(kept?.offset).toMatchObject({ side: expect.closeTo(7, 6), rise: expect.closeTo(1, 6) });
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(20, 2);
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(1, 2);

  await goToFrame(page, 61);
  // Half of the 40 m that are left.
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(40, 2);
  await page.getByRole('button', { name: 'Detach, stay here' }).click();
  await settled(page);
  const stays = (await storedShot(request, id)).document.riders[0];
  expect(stays.hitch).toBeNull();
  expect(stays.rest.translation).toEqual([7, 1, 40].map((v) => expect.closeTo(v, 6)));
});

test('the start is clicked on the path; several land one behind another', async ({ page, request }) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Several',
      range,
      paths: [straight],
      riders: [
        { id: 'a', name: 'Anna', badge: 'A1' },
        { id: 'b', name: 'Bert', badge: 'B2' },
      ],
    },
    'Attach',
  );
  const tree = page.getByRole('treegrid', { name: 'All riders' });
  await tree.getByRole('row', { name: 'A1 Anna' }).click();
  await tree.getByRole('row', { name: 'B2 Bert' }).click({ modifiers: ['Control'] });
  await land(page, 'Lane');
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Click the start' }).click();
  await expect(page.getByText('Click the path where the ride shall start.')).toBeVisible();
  const stage = await page.getByRole('group', { name: 'Stage' }).boundingBox();
  if (stage === null) throw new Error('The stage is not shown.');
  // The lane runs down the middle of the plan.
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await expect(page.getByText('Click the path where the ride shall start.')).toBeHidden();
  await fill(page, 'Apart', '4');
  await accept(page);
  await settled(page);
  const [a, b] = (await storedShot(request, id)).document.riders.map(({ hitch }) => hitch);
  const start = 60 * (a?.pace.keys[0].value ?? NaN);
  expect(Math.abs(start - 30)).toBeLessThan(3);
  expect(b?.pace.keys).toEqual(a?.pace.keys);
  expect([a?.offset.along, b?.offset.along]).toEqual([0, -4]);
});

test('a rider sits on a carrier and keeps its place, or takes the carrier’s; another model keeps its set-up', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Carrying',
      range,
      paths: [straight],
      riders: [
        { id: 'load', name: 'Load', badge: 'L1', rest: { translation: [2, 3, 10] } },
        { id: 'c', name: 'Carrier', kind: 'carrier', badge: 'C2', hitch: { path: 'lane', pace: once } },
      ],
    },
    'Attach',
  );
  await goToFrame(page, 61);
  await page.getByRole('button', { name: 'Model, name and carrier' }).click();
  await choose(page, 'Sits on', 'C2 Carrier');
  await settled(page);
  // The carrier is 30 m along: the load is 20 m behind it.
  const [load] = (await storedShot(request, id)).document.riders;
  expect(load).toMatchObject({
    parent: 'c',
    rest: { translation: [2, 3, -20].map((v) => expect.closeTo(v, 6)) },
  });
  const tree = page.getByRole('treegrid', { name: 'All riders' });
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '2');
  await choose(page, 'Sits on', 'Nothing');
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '1');
  // Dragged onto its carrier in the list it is carried, too.
  await tree.getByRole('row', { name: 'L1 Load' }).dragTo(tree.getByRole('row', { name: 'C2 Carrier' }));
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '2');
  await expect.poll(() => boardNumber(page, 'Height')).toBe(3);
  await choose(page, 'Sits on', 'Nothing');
  await page.getByText('It keeps its place when it is put on').click();
  await choose(page, 'Sits on', 'C2 Carrier');
  await expect.poll(() => boardNumber(page, 'Height')).toBe(0);

  await page.getByRole('radio', { name: 'C2 Carrier' }).click();
  // A circle is refused with the names in it.
  await page.getByRole('button', { name: 'Model, name and carrier' }).click();
  await choose(page, 'Sits on', 'L1 Load');
  await expect(page.getByRole('alert').filter({ hasText: 'Load → Carrier → Load' })).toBeVisible();
  await choose(page, 'Model', 'Barrel');
  await settled(page);
  const { models, riders } = (await storedShot(request, id)).document;
  expect(models).toMatchObject([{ name: 'Barrel', source: { asset: 'barrel' } }]);
  expect(riders[1]).toMatchObject({ model: models[0].id, parent: null, hitch: { path: 'lane' } });
});

test('a string hangs coupling to coupling, and is drawn along', async ({ page, request }) => {
  const rider = (id: string, name: string, badge: string, more = {}) => ({
    id,
    name,
    badge,
    chassis,
    ...more,
  });
  const id = await openShotOf(
    page,
    request,
    {
      name: 'String',
      range,
      paths: [circle],
      riders: [
        rider('e', 'Engine', 'E1', { hitch: { path: 'ring', anchor: 'bothAxles', pace: once } }),
        rider('w', 'Wagon', 'W2'),
      ],
    },
    'Attach',
  );
  await page.getByRole('button', { name: 'String', exact: true }).click();
  await page.getByRole('button', { name: 'Hang a string behind E1' }).click();
  await expect(page.getByText('W2: wheelbase 2.00 m, 3.00 m from coupling to coupling')).toBeVisible();
  await fill(page, 'Units', '3');
  await fill(page, 'Gap', '50 cm');
  await page.getByRole('button', { name: 'Hang it' }).click();
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders.map(({ hitch }) => hitch?.follows)).toEqual([
    null,
    { rider: 'e', gap: 0.5 },
    { rider: 'w', gap: 0.5 },
    { rider: 'wagon', gap: 0.5 },
  ]);
  await goToFrame(page, 61);
  const distances: number[] = [];
  for (const name of ['E1 Engine', 'W2 Wagon', /Wagon 2/, /Wagon 3/]) {
    await page.getByRole('radio', { name }).click();
    await expect(page.getByLabel('Board')).toContainText('Ring');
    distances.push(await boardNumber(page, 'Distance'));
  }
  // A chord of 2 m on a radius of 20 m spans 40 · asin(1/20) m; from axle to axle that, two ends and the gap.
  const arc = 40 * Math.asin(1 / 20);
  distances.forEach((distance, i) => expect(distance).toBeCloseTo(20 * Math.PI - i * (arc + 1.5), 1));
});

test('a formation is previewed, varies by its seed, follows its leader, and is one undo', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Flight',
      range,
      paths: [straight],
      riders: [
        { id: 'k', name: 'Kestrel', kind: 'creature', badge: 'K1', hitch: { path: 'lane', pace: once } },
      ],
    },
    'Attach',
  );
  await page.getByRole('button', { name: 'Formation', exact: true }).click();
  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  await choose(page, 'Arranged', 'Side by side');
  await fill(page, 'Copies', '2');
  await fill(page, 'Apart', '3 m');
  await page.getByRole('button', { name: 'Add 2 copies' }).click();
  await settled(page);
  const even = (await storedShot(request, id)).document.riders;
  expect(even.map(({ badge, hitch }) => [badge, hitch?.offset.side, hitch?.pacedBy?.rider ?? null])).toEqual([
    ['K1', 0, null],
    ['K2', 3, 'k'],
    ['K3', -3, 'k'],
  ]);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.riders).toHaveLength(1);

  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  await choose(page, 'Arranged', 'Each later by equal times');
  await fill(page, 'Copies', '3');
  await fill(page, 'Later by', '0.5 s');
  await fill(page, 'Seed', '5');
  await fill(page, 'Place', '1 m');
  await page.getByRole('button', { name: 'Add 3 copies' }).click();
  await settled(page);
  const varied = (await storedShot(request, id)).document.riders.slice(1);
  expect(varied.map(({ hitch }) => hitch?.pacedBy?.delay)).toEqual([12, 24, 36]);
  const sides = varied.map(({ hitch }) => hitch?.offset.side ?? NaN);
  expect(new Set(sides).size).toBe(3);
  expect(Math.max(...sides.map(Math.abs))).toBeLessThanOrEqual(1);
  // The last is 36 frames behind at half a metre a frame, and as much as it was varied along.
  await goToFrame(page, 61);
  await page.getByRole('radio', { name: /Kestrel 4/ }).click();
  await expect
    .poll(() => boardNumber(page, 'Distance'))
    .toBeCloseTo(12 + (varied[2].hitch?.offset.along ?? NaN), 1);
});

test('bank by physics is the angle of balance; dragging the rider changes it', async ({ page, request }) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Banking',
      range,
      paths: [circle],
      models: [{ id: 'm', name: 'Orchard barrel', source: { file: 'hauler.glb' } }],
      riders: [{ id: 'r', name: 'Racer', badge: 'R1', model: 'm', hitch: { path: 'ring', pace: once } }],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'By physics' }).click();
  await goToFrame(page, 41);
  const speed = (40 * Math.PI) / 5;
  const balance = (Math.atan(speed ** 2 / 20 / GRAVITY) * 180) / Math.PI;
  // 72.8° are over the limit of 45°: it is not passed.
  expect(balance).toBeGreaterThan(45);
  await expect.poll(() => boardNumber(page, 'Bank')).toBeLessThan(-44);
  expect(await boardNumber(page, 'Bank')).toBeGreaterThanOrEqual(-45);
  await fill(page, 'Limit', '90');
  await expect.poll(() => boardNumber(page, 'Bank')).toBeCloseTo(-balance, 1);
  const chart = page.getByRole('region', { name: 'Bank along the path' });
  await expect(chart.getByLabel('Bank now')).toHaveText(`−${balance.toFixed(1)}°`);

  await page.getByRole('radio', { name: 'Speed', exact: true }).click();
  await expect(page.getByText(`R1: 0 to ${speed.toFixed(1)} m/s`)).toBeVisible();
  await choose(page, 'Ghosts', 'Every 24 f');

  await page.getByRole('radio', { name: 'By amount' }).click();
  // 12° at a radius of 10 m are 6° at 20 m.
  await expect.poll(() => boardNumber(page, 'Bank')).toBeCloseTo(-6, 1);
  // Seen from above the rider is where its badge is, a little over it.
  await page.getByRole('radio', { name: 'Plan' }).click();
  const badge = page.getByLabel('Stage', { exact: true }).getByText('R1', { exact: true }).first();
  let at = { x: 0, y: 0 };
  await expect(async () => {
    const box = await badge.boundingBox();
    if (box === null) throw new Error('The badge is not shown.');
    at = { x: box.x + box.width / 2, y: box.y - 8 };
    await page.mouse.move(at.x + 1, at.y);
    await page.mouse.move(at.x, at.y);
    await expect(page.getByText('Drag sideways to bank')).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await dragBy(page, at, { x: at.x + 60, y: at.y });
  await settled(page);
  // A tenth of a degree a pixel.
  const amount = (await storedShot(request, id)).document.riders[0].hitch?.bank.amount ?? NaN;
  expect(amount).toBeCloseTo(12 + 6, 6);
  await expect.poll(() => boardNumber(page, 'Bank')).toBeCloseTo(-amount / 2, 1);
});

test('a camera aims at a rider, is looked through, cut to, and is a camera in the GLB', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Filming',
      range,
      paths: [straight],
      riders: [
        {
          id: 'c',
          name: 'Crane',
          kind: 'camera',
          badge: 'C1',
          camera: {},
          hitch: { path: 'lane', pace: once },
        },
        { id: 'p', name: 'Post', badge: 'P2', rest: { translation: [30, 0, 30] } },
        { id: 'd', name: 'Drone', kind: 'camera', badge: 'D3', camera: {} },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'A target' }).click();
  await choose(page, 'At', 'P2 Post');
  // From the start of the lane the post is 30 m ahead and 30 m to the left; half-way it is square to the lane.
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(45);
  await goToFrame(page, 61);
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(90);
  await fill(page, 'Focal length', '50 mm'.replace(' mm', ''));
  await page.getByRole('button', { name: 'Cut to C1 here' }).click();
  await page.getByRole('radio', { name: 'D3 Drone' }).click();
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await page.getByRole('button', { name: 'Cut to D3 here' }).click();
  await page.getByRole('radio', { name: 'Through the cuts' }).click();
  await expect(page.getByRole('img', { name: 'Picture of D3 Drone' })).toBeVisible();
  await goToFrame(page, 61);
  await expect(page.getByRole('img', { name: 'Picture of C1 Crane' })).toBeVisible();
  const cut = page.getByRole('slider', { name: 'Cut to C1' });
  await cut.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(cut).toHaveAttribute('aria-valuenow', '71');
  await expect(page.getByRole('img', { name: 'Picture of D3 Drone' })).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.cuts).toEqual([
    { frame: 1, camera: 'd' },
    { frame: 71, camera: 'c' },
  ]);
  expect(document.riders[0].hitch?.facing).toMatchObject({ mode: 'aim', target: { rider: 'p' } });

  const glb = await (await request.get(`/api/shots/${id}/files/glb`)).body();
  const root = (await new WebIO().readBinary(new Uint8Array(glb))).getRoot();
  const lens = root.listCameras().find((camera) => camera.getName() === 'Crane');
  expect(lens?.getYFov()).toBeCloseTo(2 * Math.atan(36 / (16 / 9) / 2 / 50), 5);
});

test('a target is picked on the stage; keys blend the aim, the offset and the ride', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Blending',
      range,
      paths: [straight],
      riders: [
        {
          id: 'c',
          name: 'Crane',
          badge: 'C1',
          rest: { translation: [0, 9, 0] },
          hitch: { path: 'lane', pace: once },
        },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'A target' }).click();
  await page.getByRole('button', { name: 'Pick on the stage' }).click();
  await expect(page.getByText(/Click what C1 Crane shall look at/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/Click what C1 Crane shall look at/)).toBeHidden();
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Pick on the stage' }).click();
  const stage = await page.getByRole('group', { name: 'Stage' }).boundingBox();
  if (stage === null) throw new Error('The stage is not shown.');
  await page.mouse.click(stage.x + stage.width / 2 + 120, stage.y + stage.height / 2);
  await expect(page.getByText(/Click what C1 Crane shall look at/)).toBeHidden();
  await settled(page);
  const point = (await storedShot(request, id)).document.riders[0].hitch?.facing.target?.point;
  // The plan has X to the right; the ground is level.
  expect(point?.[0]).toBeGreaterThan(2);
  expect(point?.[1]).toBe(0);
  const heading = (Math.atan2(point?.[0] ?? NaN, point?.[2] ?? NaN) * 180) / Math.PI;
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(Math.round(heading));

  await page.getByRole('button', { name: 'From its way to its target' }).click();
  await page.getByRole('button', { name: 'Key aim at frame 1' }).click();
  const key = page.getByRole('group', { name: 'aim, key 1' });
  await key.getByRole('textbox', { name: 'Value' }).fill('0');
  await key.getByRole('textbox', { name: 'Value' }).press('Enter');
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);

  await page.getByRole('button', { name: 'Key offset at frame 1' }).click();
  await goToFrame(page, 61);
  await fill(page, 'Up', '4 m');
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(4, 2);
  await goToFrame(page, 31);
  // Smooth from level to level: half-way in time it is half-way up.
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(2, 2);

  await page.getByRole('button', { name: 'On and off its path' }).click();
  await page.getByRole('button', { name: 'Key ride at frame 31' }).click();
  const ride = page.getByRole('group', { name: 'ride, key 1' });
  await ride.getByRole('textbox', { name: 'Value' }).fill('0.5');
  await ride.getByRole('textbox', { name: 'Value' }).press('Enter');
  // Half-way between 2 m up on its path and 9 m up where it rests.
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(5.5, 2);
  await settled(page);
  const { hitch } = (await storedShot(request, id)).document.riders[0];
  expect(hitch?.offsetKeys.map(({ frame, rise }) => [frame, rise])).toEqual([
    [1, 0],
    [61, 4],
  ]);
  expect(hitch?.influence).toMatchObject([{ frame: 31, value: 0.5 }]);
  expect(hitch?.facing.aim.influence).toMatchObject([{ frame: 1, value: 0 }]);
});

test('what looks at each other in a circle is refused with the names, and nothing changes', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Circles',
      range,
      paths: [straight],
      riders: [
        { id: 'a', name: 'Anna', badge: 'A1', hitch: { path: 'lane' } },
        {
          id: 'b',
          name: 'Bert',
          badge: 'B2',
          hitch: { path: 'lane', facing: { mode: 'aim', target: { rider: 'a' } } },
        },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'A target' }).click();
  await choose(page, 'At', 'B2 Bert');
  await expect(page.getByRole('alert').filter({ hasText: 'Anna → Bert → Anna' })).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].hitch?.facing.target).toBeNull();
  // A model that is none says why, and the desk stays usable.
  await goTo(page, 'Attach');
  const broken = { ...(await cartModel('broken.glb')), buffer: Buffer.from('not a model at all, but words') };
  await chooseFile(page, 'Upload a model', broken);
  await expect(page.getByRole('alert').filter({ hasText: 'broken.glb' })).toBeVisible();
  await page.getByRole('button', { name: 'Add a camera' }).click();
  await expect(page.getByRole('radio', { name: /Camera/ })).toBeVisible();
});
