import { WebIO } from '@gltf-transform/core';
import { circle, once, range, straight } from './support/courses.js';
import {
  boardNumber,
  choose,
  chooseFile,
  fill,
  goTo,
  goToFrame,
  openShotOf,
  settled,
  storedShot,
} from './support/desk.js';
import { cartModel } from './support/files.js';
import { dragBy, measurePlan, stageBox } from './support/plan.js';
import { expect, test } from './support/test.js';

const GRAVITY = 9.80665;

test('bank by physics is the angle of balance; dragging the rider changes it', async ({ page, request }) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Banking',
      range,
      paths: [circle],
      models: [{ id: 'm', name: 'Orchard barrel', source: { file: 'hauler.glb' } }],
      riders: [{ id: 'r', name: 'Racer', badge: 'R1', model: 'm', attachment: { path: 'ring', pace: once } }],
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
  // Seen from above it is a third of the way round, by the plan's own coordinates.
  await page.getByRole('radio', { name: 'Plan' }).click();
  await goTo(page, 'Path');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await page.keyboard.press('Escape');
  await goTo(page, 'Facing');
  const third = (2 * Math.PI) / 3;
  const at = map.at(-20 * Math.cos(third), 20 * Math.sin(third));
  await expect(async () => {
    await page.mouse.move(at.x + 1, at.y);
    await page.mouse.move(at.x, at.y);
    await expect(page.getByText('Drag sideways to bank')).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await dragBy(page, at, { x: at.x + 60, y: at.y });
  await settled(page);
  // A tenth of a degree a pixel.
  const amount = (await storedShot(request, id)).document.riders[0].attachment?.bank.amount ?? NaN;
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
          attachment: { path: 'lane', pace: once },
        },
        { id: 'p', name: 'Post', badge: 'P2', rest: { translation: [30, 0, 30] } },
        { id: 'd', name: 'Drone', kind: 'camera', badge: 'D3', camera: {} },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'At a target' }).click();
  await choose(page, 'Target', 'P2 Post');
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
  expect(document.riders[0].attachment?.facing).toMatchObject({ mode: 'aim', target: { rider: 'p' } });

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
          attachment: { path: 'lane', pace: once },
        },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'At a target' }).click();
  await page.getByRole('button', { name: 'Pick on the stage' }).click();
  await expect(page.getByText(/Click what C1 Crane aims at/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/Click what C1 Crane aims at/)).toBeHidden();
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Pick on the stage' }).click();
  const stage = await stageBox(page);
  await page.mouse.click(stage.x + stage.width / 2 + 120, stage.y + stage.height / 2);
  await expect(page.getByText(/Click what C1 Crane aims at/)).toBeHidden();
  await settled(page);
  const point = (await storedShot(request, id)).document.riders[0].attachment?.facing.target?.point;
  // The plan has X to the right; the ground is level.
  expect(point?.[0]).toBeGreaterThan(2);
  expect(point?.[1]).toBe(0);
  const heading = (Math.atan2(point?.[0] ?? NaN, point?.[2] ?? NaN) * 180) / Math.PI;
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(Math.round(heading));

  await page.getByRole('button', { name: 'Aim influence' }).click();
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

  await page.getByRole('button', { name: 'Path influence' }).click();
  await page.getByRole('button', { name: 'Key ride at frame 31' }).click();
  const ride = page.getByRole('group', { name: 'ride, key 1' });
  await ride.getByRole('textbox', { name: 'Value' }).fill('0.5');
  await ride.getByRole('textbox', { name: 'Value' }).press('Enter');
  // Half-way between 2 m up on its path and 9 m up where it rests.
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(5.5, 2);
  await settled(page);
  const { attachment } = (await storedShot(request, id)).document.riders[0];
  expect(attachment?.offsetKeys.map(({ frame, rise }) => [frame, rise])).toEqual([
    [1, 0],
    [61, 4],
  ]);
  expect(attachment?.influence).toMatchObject([{ frame: 31, value: 0.5 }]);
  expect(attachment?.facing.aim.influence).toMatchObject([{ frame: 1, value: 0 }]);
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
        { id: 'a', name: 'Anna', badge: 'A1', attachment: { path: 'lane' } },
        {
          id: 'b',
          name: 'Bert',
          badge: 'B2',
          attachment: { path: 'lane', facing: { mode: 'aim', target: { rider: 'a' } } },
        },
      ],
    },
    'Facing',
  );
  await page.getByRole('radio', { name: 'At a target' }).click();
  await choose(page, 'Target', 'B2 Bert');
  await expect(page.getByRole('alert').filter({ hasText: 'Anna → Bert → Anna' })).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.facing.target).toBeNull();
  // A model that is none says why, and the desk stays usable.
  await goTo(page, 'Attach');
  const broken = { ...(await cartModel('broken.glb')), buffer: Buffer.from('not a model at all, but words') };
  await chooseFile(page, 'Upload a model', broken);
  await expect(page.getByRole('alert').filter({ hasText: 'broken.glb' })).toBeVisible();
  await page.getByRole('button', { name: 'Add a camera' }).click();
  await expect(page.getByRole('radio', { name: /Camera/ })).toBeVisible();
});

test('the heights of a path are drawn when one comes to them, and show where its rider is', async ({
  page,
  request,
}) => {
  await openShotOf(
    page,
    request,
    {
      name: 'Heights',
      range,
      paths: [circle],
      riders: [{ id: 'r', name: 'Racer', badge: 'R1', attachment: { path: 'ring', pace: once } }],
    },
    'Path',
  );
  await settled(page);
  const heights = page.getByRole('region', { name: 'Height over ground' });
  await expect(heights.locator('svg')).toHaveCount(0);
  const said = heights.getByText('From 0 to 0 m over the ground.');
  await said.scrollIntoViewIfNeeded();
  // Nothing moves when it is drawn.
  const before = await said.boundingBox();
  const playhead = heights.locator('svg line[transform]');
  const place = async (frame: number) => {
    await goToFrame(page, frame);
    const moved = (await playhead.getAttribute('transform')) ?? '';
    return Number(/translate\((\S+) /.exec(moved)?.[1]);
  };
  // Once round in 120 frames, at one speed.
  await expect(playhead).toHaveCount(1);
  expect(await said.boundingBox()).toEqual(before);
  const [start, half, later] = [await place(1), await place(61), await place(91)];
  expect(half - start).toBeGreaterThan(50);
  expect((later - half) / (half - start)).toBeCloseTo(0.5, 6);
});
