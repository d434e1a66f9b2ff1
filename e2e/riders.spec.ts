import type { Page } from '@playwright/test';
import { chassis, circle, once, range, straight } from './support/courses.js';
import {
  boardNumber,
  choose,
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
import { stageBox } from './support/plan.js';
import { expect, test } from './support/test.js';

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
  await expect(page.getByRole('radio', { name: 'O1 Odd wagon' })).toBeVisible();
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: 'straight' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Attach here' })).toBeFocused();
  await page.keyboard.press('Enter');
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders[0].attachment?.facing).toMatchObject({ forward: '+x', up: '+y' });
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
  await expect(page.getByText(/Found in the model: nose \+X, roof \+Y, certain, by 4 wheels/)).toBeVisible();
  await page.getByRole('button', { name: 'Flip nose' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);
  await expect(page.getByRole('img', { name: /the nose of Odd wagon is −X/ })).toBeVisible();
  await page.getByRole('button', { name: 'Use the found facing' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Turn left', exact: true }).focus();
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(90);
  await page.getByRole('radio', { name: 'By amount' }).focus();
  await page.keyboard.press('Space');
  await settled(page);
  const { attachment } = (await storedShot(request, id)).document.riders[0];
  expect(attachment).toMatchObject({
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
      riders: [{ id: 'r', name: 'Hauler', model: 'm', attachment: { path: 'lane' } }],
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
  expect((await storedShot(request, id)).document.riders[0].attachment?.facing).toMatchObject({
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
  await expect(page.getByText('That is 12 m/s (43 km/h).')).toBeVisible();
  await fill(page, 'From frame', '109');
  await expect(
    page.getByText('That is 120 m/s (432 km/h): set a speed, or make the range longer.'),
  ).toBeVisible();
  await fill(page, 'of the path', '75');
  await page.getByRole('radio', { name: 'Against' }).click();
  await page.getByRole('radio', { name: 'At a speed' }).click();
  await fill(page, 'Speed', '36 km/h');
  await fill(page, 'From frame', '25');
  await accept(page);
  await settled(page);
  const first = (await storedShot(request, id)).document.riders[0].attachment;
  // 45 m at 10 m/s from frame 25 on: 108 frames later it is at the start.
  expect(first?.pace).toMatchObject({
    mode: 'speed',
    start: { frame: 25, value: 45 },
    speeds: [
      { frame: 1, speed: 0 },
      { frame: 25, speed: -10 },
    ],
  });
  await goToFrame(page, 37);
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(40, 2);
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(180);

  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await land(page, 'Lane');
  await page.getByText('Keep its position (').click();
  await accept(page);
  await settled(page);
  const kept = (await storedShot(request, id)).document.riders[0].attachment;
  expect(kept?.offset).toMatchObject({ side: expect.closeTo(7, 6), rise: expect.closeTo(1, 6) });
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(20, 2);
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(1, 2);

  await goToFrame(page, 61);
  // Half of the 40 m that are left.
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo(40, 2);
  await page.getByRole('button', { name: 'Detach, stay here' }).click();
  await settled(page);
  const stays = (await storedShot(request, id)).document.riders[0];
  expect(stays.attachment).toBeNull();
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
  await expect(page.getByText('Click the path where the ride starts.')).toBeVisible();
  const stage = await stageBox(page);
  // The lane runs down the middle of the plan.
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await expect(page.getByText('Click the path where the ride starts.')).toBeHidden();
  await fill(page, 'Spacing', '4');
  await accept(page);
  await settled(page);
  const [a, b] = (await storedShot(request, id)).document.riders.map(({ attachment }) => attachment);
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
        { id: 'c', name: 'Carrier', kind: 'carrier', badge: 'C2', attachment: { path: 'lane', pace: once } },
      ],
    },
    'Attach',
  );
  await goToFrame(page, 61);
  await page.getByRole('button', { name: 'Model, name and carrier' }).click();
  await choose(page, 'Carrier', 'C2 Carrier');
  await settled(page);
  // The carrier is 30 m along: the load is 20 m behind it.
  const [load] = (await storedShot(request, id)).document.riders;
  expect(load).toMatchObject({
    parent: 'c',
    rest: { translation: [2, 3, -20].map((v) => expect.closeTo(v, 6)) },
  });
  const tree = page.getByRole('treegrid', { name: 'All riders' });
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '2');
  await choose(page, 'Carrier', 'Nothing');
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '1');
  // Dragged onto its carrier in the list it is carried, too.
  await tree.getByRole('row', { name: 'L1 Load' }).dragTo(tree.getByRole('row', { name: 'C2 Carrier' }));
  await expect(tree.getByRole('row', { name: 'L1 Load' })).toHaveAttribute('aria-level', '2');
  await expect.poll(() => boardNumber(page, 'Height')).toBe(3);
  await choose(page, 'Carrier', 'Nothing');
  await page.getByText('Keep its position when attached to a carrier').click();
  await choose(page, 'Carrier', 'C2 Carrier');
  await expect.poll(() => boardNumber(page, 'Height')).toBe(0);

  await page.getByRole('radio', { name: 'C2 Carrier' }).click();
  // A circle is refused with the names in it.
  await page.getByRole('button', { name: 'Model, name and carrier' }).click();
  await choose(page, 'Carrier', 'L1 Load');
  await expect(page.getByRole('alert').filter({ hasText: 'Load → Carrier → Load' })).toBeVisible();
  await choose(page, 'Model', 'Barrel');
  await settled(page);
  const { models, riders } = (await storedShot(request, id)).document;
  expect(models).toMatchObject([{ name: 'Barrel', source: { asset: 'barrel' } }]);
  expect(riders[1]).toMatchObject({ model: models[0].id, parent: null, attachment: { path: 'lane' } });
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
        rider('e', 'Engine', 'E1', { attachment: { path: 'ring', anchor: 'bothAxles', pace: once } }),
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
  expect(riders.map(({ attachment }) => attachment?.coupledTo)).toEqual([
    null,
    { rider: 'e', gap: 0.5 },
    { rider: 'w', gap: 0.5 },
    { rider: 'wagon', gap: 0.5 },
  ]);
  await goToFrame(page, 61);
  const distances: number[] = [];
  for (const name of ['E1 Engine', 'W2 Wagon', /Wagon 2/, /Wagon 3/]) {
    await page.getByRole('radio', { name }).click();
    await expect(page.getByRole('region', { name: 'Board' })).toContainText('Ring');
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
        { id: 'k', name: 'Kestrel', kind: 'creature', badge: 'K1', attachment: { path: 'lane', pace: once } },
      ],
    },
    'Attach',
  );
  await page.getByRole('button', { name: 'Formation', exact: true }).click();
  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  await choose(page, 'Arrangement', 'Side by side');
  await fill(page, 'Copies', '2');
  await fill(page, 'Spacing', '3 m');
  await page.getByRole('button', { name: 'Add 2 copies' }).click();
  await settled(page);
  const even = (await storedShot(request, id)).document.riders;
  expect(
    even.map(({ badge, attachment }) => [badge, attachment?.offset.side, attachment?.pacedBy?.rider ?? null]),
  ).toEqual([
    ['K1', 0, null],
    ['K2', 3, 'k'],
    ['K3', -3, 'k'],
  ]);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.riders).toHaveLength(1);

  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  await choose(page, 'Arrangement', 'Delayed');
  await fill(page, 'Copies', '3');
  await fill(page, 'Delay', '0.5 s');
  await fill(page, 'Seed', '5');
  await fill(page, 'Distance', '1 m');
  await page.getByRole('button', { name: 'Add 3 copies' }).click();
  await settled(page);
  const varied = (await storedShot(request, id)).document.riders.slice(1);
  expect(varied.map(({ attachment }) => attachment?.pacedBy?.delay)).toEqual([12, 24, 36]);
  const sides = varied.map(({ attachment }) => attachment?.offset.side ?? NaN);
  expect(new Set(sides).size).toBe(3);
  expect(Math.max(...sides.map(Math.abs))).toBeLessThanOrEqual(1);
  // The last is 36 frames behind at half a metre a frame, plus its variation.
  await goToFrame(page, 61);
  await page.getByRole('radio', { name: /Kestrel 4/ }).click();
  await expect
    .poll(() => boardNumber(page, 'Distance'))
    .toBeCloseTo(12 + (varied[2].attachment?.offset.along ?? NaN), 1);
});

test('a model that is still on its way when another step is gone to becomes a rider all the same', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'On its way');
  let go = () => undefined as void;
  const gone = new Promise<void>((resolve) => (go = resolve));
  await page.route('**/api/models', async (route) => {
    if (route.request().method() === 'POST') await gone;
    await route.continue();
  });
  await uploadModel(page, await cartModel());
  await goTo(page, 'Path');
  await expect(page.getByRole('heading', { name: 'Path', level: 2 })).toBeVisible();
  go();
  await expect(page.getByRole('radio', { name: 'C1 Cart' })).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.riders.map(({ badge }) => badge)).toEqual(['C1']);
});

test('presses of no length on rows of models add a rider each, also while those before are still being worked in', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Pressed');
  await goTo(page, 'Attach');
  const rows = page.getByRole('grid', { name: 'Models' }).getByRole('row');
  const mouse = await page.context().newCDPSession(page);
  // The button is down and up with nothing between.
  const press = async (name: string) => {
    const row = rows.filter({ hasText: name });
    await row.scrollIntoViewIfNeeded();
    const box = await row.boundingBox();
    if (box === null) throw new Error(`${name} is not shown.`);
    const at = { x: box.x + 40, y: box.y + box.height / 2, button: 'left' as const, clickCount: 1 };
    await mouse.send('Input.dispatchMouseEvent', { type: 'mousePressed', ...at });
    await mouse.send('Input.dispatchMouseEvent', { type: 'mouseReleased', ...at });
  };
  const names = ['Barrel', 'Hauler', 'Kestrel', 'Cone', 'Drone', 'Post'];
  for (const name of names) await press(name);
  await expect(page.getByRole('radiogroup', { name: 'Riders' }).getByRole('radio')).toHaveCount(names.length);
  await settled(page);
  expect((await storedShot(request, id)).document.riders.map(({ name }) => name)).toEqual(names);
});
