import { WebIO, type Root } from '@gltf-transform/core';
import type { APIRequestContext, Page } from '@playwright/test';
import { validateBytes } from 'gltf-validator';
import { circle, range, straight } from './support/courses.js';
import {
  attachTo,
  boardNumber,
  choose,
  fill,
  goTo,
  goToFrame,
  openShotOf,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, wagonModel, type TestFile } from './support/files.js';
import { stageBox } from './support/plan.js';
import { holedGround } from './support/ground-models.js';
import { expect, test } from './support/test.js';

/** Uploads a model, and waits until it is a rider: what is clicked next is for that one. */
async function uploaded(page: Page, model: TestFile): Promise<void> {
  await uploadModel(page, model);
  const words = model.name.replace(/\.glb$/, '').replace('-', ' ');
  await expect(page.getByRole('radio', { name: new RegExp(words, 'i') })).toBeChecked();
}

/** A shot of one lane, on which a model that is uploaded rides. */
async function ridden(
  page: Page,
  request: APIRequestContext,
  model: TestFile,
  path: object,
  station = 'Contact',
) {
  const parts = {
    name: 'Contact',
    range,
    paths: [path],
    riders: [{ id: 'post', name: 'Post', badge: 'X9' }],
  };
  const id = await openShotOf(page, request, parts, 'Attach');
  await uploaded(page, model);
  await attachTo(page, (path as { name: string }).name);
  await goTo(page, station);
  return id;
}

test('wheels with odd names are found, and after a lap each has turned by its own circle', async ({
  page,
  request,
}) => {
  const id = await ridden(page, request, await wagonModel(), circle);
  await expect(
    page.getByText('O1 rolls on the 4 wheels found in Odd wagon, and rides with its rear axle on the path.'),
  ).toBeVisible();
  const wheels = page.getByRole('region', { name: 'Wheels' });
  await expect(wheels.getByRole('group', { name: 'Rear left' })).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  const found = document.riders[1].wheels;
  expect(found).toHaveLength(4);
  for (const { radius, centre, steers } of found) {
    expect(radius).toBeCloseTo(0.4, 4);
    expect(Math.abs(centre[2])).toBeCloseTo(0.8, 4);
    expect(steers).toBe(centre[0] > 0);
  }
  await goToFrame(page, 121);
  // s (1 − y / R) / r in turns: 20 m round, 0.8 m to either side, wheels of 0.4 m.
  await expect.poll(() => boardNumber(page, 'Rear left')).toBeCloseTo((20 * (1 - 0.8 / 20)) / 0.4, 3);
  expect(await boardNumber(page, 'Rear right')).toBeCloseTo((20 * (1 + 0.8 / 20)) / 0.4, 3);
  // Its rear axle is on the circle, its front one 2.4 m ahead of that.
  const angle = (Math.atan(2.4 / 20 / (1 - 0.8 / 20)) * 180) / Math.PI;
  expect(await boardNumber(page, 'Steer front left')).toBeCloseTo(angle, 1);

  // A radius of nothing is refused, and what was typed stays.
  const rear = page.getByRole('group', { name: 'Rear left' });
  await rear.getByRole('textbox', { name: 'Radius' }).fill('0');
  await rear.getByRole('textbox', { name: 'Radius' }).press('Enter');
  await expect(rear).toContainText('Enter 0.000001 m or more.');
  await expect(rear.getByRole('textbox', { name: 'Radius' })).toHaveValue('0');
  await rear.getByRole('textbox', { name: 'Radius' }).press('Escape');
  await fill(rear as unknown as Page, 'Radius', '50 cm');
  await expect.poll(() => boardNumber(page, 'Rear left')).toBeCloseTo((20 * (1 - 0.8 / 20)) / 0.5, 3);
  await rear.getByRole('button', { name: 'Measure Rear left from model' }).click();
  await expect.poll(() => boardNumber(page, 'Rear left')).toBeCloseTo((20 * (1 - 0.8 / 20)) / 0.4, 3);
});

/** Moves the pointer over the stage until it says what a drag would do there. */
async function findOnStage(page: Page, text: RegExp): Promise<{ x: number; y: number; text: string }> {
  const box = await stageBox(page);
  const readout = page.getByText(text);
  // Every fourth row first: what is sought is mostly larger than that.
  for (const first of [0, 2, 1, 3]) {
    for (let y = box.height * 0.35 + 9 * first; y < box.height * 0.9; y += 36) {
      for (let x = box.width * 0.15; x < box.width * 0.8; x += 14) {
        await page.mouse.move(box.x + x, box.y + y);
        if (await readout.isVisible())
          return { x: box.x + x, y: box.y + y, text: (await readout.textContent()) ?? '' };
      }
    }
  }
  throw new Error(`Nowhere on the stage it says ${text.source}.`);
}

test('a wheel’s rim is dragged on the stage to another radius, as one step', async ({ page, request }) => {
  const id = await ridden(page, request, await wagonModel(), straight);
  // Left out with one press, and taken again.
  await page.getByRole('button', { name: /^Remove the wheels of / }).click();
  await expect(page.getByText('4 wheels were found in Odd wagon')).toBeVisible();
  await page.getByRole('button', { name: 'Use the found wheels' }).click();
  await page.getByRole('radio', { name: 'Side' }).click();
  await page.getByRole('button', { name: 'Zoom to O1' }).click();
  await settled(page);
  const rim = await findOnStage(page, /^Drag the radius of/);
  const node = rim.text.replace('Drag the radius of ', '');
  await page.mouse.down();
  await page.mouse.move(rim.x + 12, rim.y, { steps: 3 });
  await page.mouse.move(rim.x + 24, rim.y, { steps: 3 });
  await page.mouse.up();
  await settled(page);
  const radiusOf = async () =>
    (await storedShot(request, id)).document.riders[1].wheels.find((wheel) => wheel.node === node)?.radius ??
    NaN;
  expect(Math.abs((await radiusOf()) - 0.4)).toBeGreaterThan(0.01);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(radiusOf).toBeCloseTo(0.4, 4);
});

/** The server's own model of a name. */
async function shipped(request: APIRequestContext, name: string): Promise<string> {
  const models = (await (await request.get('/api/models')).json()) as { id: string; name: string }[];
  const found = models.find((model) => model.name === name);
  if (!found) throw new Error(`There is no model ${name}.`);
  return found.id;
}

/** The picker on a bend: it walks, stops for two seconds, and walks on. */
async function pickerShot(page: Page, request: APIRequestContext): Promise<string> {
  const bend = {
    id: 'row',
    name: 'Row',
    basis: 'through',
    points: [
      [0, 0, 0],
      [0, 0, 6],
      [4, 0, 10],
      [10, 0, 10],
    ].map((position) => ({ position })),
  };
  const keys = [
    { frame: 1, value: 0 },
    { frame: 97, value: 5.2 },
    { frame: 145, value: 5.2 },
    { frame: 241, value: 10.4 },
  ];
  const parts = {
    name: 'Picking',
    range: { first: 1, last: 240 },
    paths: [bend],
    models: [{ id: 'picker', name: 'Picker', source: { asset: await shipped(request, 'Picker') } }],
    riders: [
      {
        id: 'p',
        name: 'Picker',
        kind: 'character',
        model: 'picker',
        badge: 'P1',
        attachment: { path: 'row', pace: { keys } },
      },
    ],
  };
  return openShotOf(page, request, parts, 'Contact');
}

test('the picker walks, stops, acts and walks on without sliding', async ({ page, request }) => {
  const id = await pickerShot(page, request);
  const walk = page.getByRole('region', { name: 'Walk' });
  await expect(walk).toContainText('“walk” walks on 2 feet, 1.40 m a cycle.');
  await walk.getByRole('button', { name: 'Walk by distance' }).click();
  await walk.getByRole('button', { name: 'Acts at stops' }).click();
  await walk.getByRole('button', { name: 'Add an act' }).click();
  await expect(walk.getByRole('group', { name: 'Act at stop 1' })).toContainText('pick');
  await settled(page);
  const gait = async () => (await storedShot(request, id)).document.riders[0].gait;
  expect(await gait()).toMatchObject({
    clip: 'walk',
    idle: 'idle',
    plant: true,
    acts: [{ stop: 0, clip: 'pick' }],
  });
  expect((await gait())?.stride).toBeCloseTo(1.4, 2);

  // Bars for each foot, none of them sliding; the board says so frame by frame.
  const strip = page.getByRole('group', { name: 'Gait strip' });
  await expect.poll(() => strip.locator('[data-plant="foot_left"]').count()).toBeGreaterThan(5);
  await expect(strip).not.toContainText('mm');
  for (const frame of [30, 60, 120]) {
    await goToFrame(page, frame);
    await expect.poll(() => boardNumber(page, 'Slide foot_left')).toBeLessThanOrEqual(1);
    expect(await boardNumber(page, 'Slide foot_right')).toBeLessThanOrEqual(1);
  }
  // Standing, the gait is where it came to.
  const stopped = ((5.2 / ((await gait())?.stride ?? NaN)) % 1) * 100;
  await expect.poll(() => boardNumber(page, 'Gait')).toBeCloseTo(stopped, -1);

  // The stop's first end goes to where both feet are down; its last end makes it longer.
  const begins = page.getByRole('slider', { name: 'Stop 1 begins' });
  await begins.press('ArrowRight');
  await settled(page);
  const stopKeys = async () => (await storedShot(request, id)).document.riders[0].attachment?.pace.keys ?? [];
  const [, first, second] = await stopKeys();
  expect(first.value).toBeGreaterThan(5.2);
  expect(first.value).toBe(second.value);
  const phase = first.value / ((await gait())?.stride ?? NaN);
  // Down together at about 0.04 and 0.54 of the cycle.
  expect(Math.min(...[0.04, 0.54].map((rest) => Math.abs(rest - (phase % 1))))).toBeLessThan(0.03);
  await page.getByRole('slider', { name: 'Stop 1 ends' }).press('Shift+ArrowRight');
  await settled(page);
  expect((await stopKeys()).map(({ frame }) => frame)).toEqual([1, 97, 155, 251]);

  // Without planting the bend makes its feet slide, and Check says by how much.
  await walk.getByText('Lock feet to the ground').click();
  await expect(strip).toContainText('mm');
  await goTo(page, 'Check');
  await expect(page.getByText(/P1: "foot_(left|right)" slides \d+ mm while it stands/)).toBeVisible();
});

test('a foot is dragged to another node, and back by an undo', async ({ page, request }) => {
  const id = await pickerShot(page, request);
  await page.getByRole('button', { name: 'Walk by distance' }).click();
  await page.getByRole('radio', { name: 'Side' }).click();
  await page.getByRole('button', { name: 'Zoom to P1' }).click();
  await settled(page);
  const foot = await findOnStage(page, /^Drag foot_(left|right) to another node/);
  const node = /foot_\w+/.exec(foot.text)?.[0];
  await page.mouse.down();
  await page.mouse.move(foot.x, foot.y - 60, { steps: 4 });
  await page.mouse.move(foot.x, foot.y - 120, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  const feet = async () =>
    ((await storedShot(request, id)).document.riders[0].gait?.feet ?? []).map((one) => one.node);
  expect(await feet()).not.toContain(node);
  expect(await feet()).toHaveLength(2);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(async () => (await feet()).sort()).toEqual(['foot_left', 'foot_right']);
});

/** A rider's rows of a CSV by frame: place, turn, distance … of itself or of a part. */
function rowsOf(csv: string, rider: string, part = ''): number[][] {
  return csv
    .split('\n')
    .map((line) => line.split(','))
    .filter((cells) => cells[2] === rider && cells[3] === part)
    .map((cells) => cells.slice(4).map(Number));
}

/** The values of one channel of a rider's node, or of a part under it, by frame. */
function channel(root: Root, rider: string, part: string | null, path: string): Float32Array {
  const own = root.listNodes().find((node) => node.getName() === rider);
  const nodes: string[] = [];
  const under = new Set<unknown>();
  own?.traverse((node) => {
    nodes.push(node.getName());
    under.add(node);
  });
  const found = root
    .listAnimations()
    .flatMap((animation) => animation.listChannels())
    .find((one) => {
      const target = one.getTargetNode();
      const meant = part === null ? target === own : under.has(target) && target?.getName() === part;
      return meant && one.getTargetPath() === path && (one.getSampler()?.getInput()?.getCount() ?? 0) > 100;
    });
  const values = found?.getSampler()?.getOutput()?.getArray();
  if (!values) throw new Error(`${rider} ${part} has no ${path}; there are ${nodes.join(', ')}`);
  return values as Float32Array;
}

test('the demo drives over the bridge and under it, beats its wings, and comes out as it is played', async ({
  page,
  request,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Orchard loop' }).click();
  await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
  const id = /\/shots\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const csv = await (await request.get(`/api/shots/${id}/files/csv`)).text();
  const hauler = rowsOf(csv, 'hauler');
  expect(hauler).toHaveLength(1080);
  const crossings = hauler.flatMap(([x, y, z], i) => (Math.hypot(x, z) < 0.4 ? [{ frame: i + 1, y }] : []));
  const over = crossings.find(({ y }) => y > 1.8);
  const under = crossings.find(({ y }) => y < 1.8);
  if (!over || !under) throw new Error('The hauler does not cross over and under.');
  // The deck lies 3.6 m up, the lane on the ground; both two centimetres under the path.
  expect(over.y).toBeCloseTo(3.58, 1);
  expect(under.y).toBeCloseTo(-0.02, 2);

  await goTo(page, 'Contact');
  await page.getByRole('radio', { name: 'H1 Hauler' }).click();
  await expect(page.getByRole('group', { name: 'Front left' })).toBeVisible();
  await goToFrame(page, under.frame);
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(under.y, 2);

  // Every frame of what is handed over is what is played: of wheels, wings and limbs.
  const bytes = new Uint8Array(await (await request.get(`/api/shots/${id}/files/glb`)).body());
  expect((await validateBytes(bytes)).issues.numErrors).toBe(0);
  const root = (await new WebIO().readBinary(bytes)).getRoot();
  for (const [rider, name, part] of [
    ['hauler', 'Hauler', 'wheel_front_left'],
    ['hauler', 'Hauler', 'wheel_front_left steer'],
    ['hauler', 'Hauler', 'body'],
    ['kestrel', 'Kestrel', 'wing_left'],
    ['picker', 'Picker', 'shin_left'],
  ]) {
    const rows = rowsOf(csv, rider, part);
    const turns = channel(root, name, part, 'rotation');
    expect(rows).toHaveLength(1080);
    const off = rows.map((row, i) =>
      Math.max(...[0, 1, 2, 3].map((k) => Math.abs(turns[4 * i + k] - row[3 + k]))),
    );
    expect(Math.max(...off)).toBeLessThan(1e-4);
  }
  const wings = rowsOf(csv, 'kestrel', 'wing_left').map((row) => 2 * Math.asin(row[5]) * (180 / Math.PI));
  // 32° to either side of a rest of 8°, 108 beats in 45 s: ten frames a beat, of which none is quite at its end.
  const furthest = 32 * Math.sin(0.4 * Math.PI);
  expect(Math.max(...wings)).toBeCloseTo(8 + furthest, 3);
  expect(Math.min(...wings)).toBeCloseTo(8 - furthest, 3);
  const beats = wings.filter((value, i) => i > 0 && wings[i - 1] < 8 && value >= 8).length;
  expect(Math.abs(beats - 108)).toBeLessThanOrEqual(1);

  const thin = new Uint8Array(await (await request.get(`/api/shots/${id}/files/glb?within=0.005`)).body());
  expect(thin.byteLength).toBeLessThan(0.9 * bytes.byteLength);
  expect((await validateBytes(thin)).issues.numErrors).toBe(0);
  expect((await request.get(`/api/shots/${id}/files/glb?within=often`)).status()).toBe(400);
});

/** A lamp that nods in its only clip. */
async function noddingModel(): Promise<TestFile> {
  const { buffer } = await cartModel();
  const document = await new WebIO().readBinary(new Uint8Array(buffer));
  const accessor = (type: 'SCALAR' | 'VEC4', values: number[]) =>
    document
      .createAccessor()
      .setType(type)
      .setArray(new Float32Array(values))
      .setBuffer(document.getRoot().listBuffers()[0]);
  const sampler = document
    .createAnimationSampler()
    .setInput(accessor('SCALAR', [0, 1, 2]))
    .setOutput(accessor('VEC4', [0, 0, 0, 1, 0.1, 0, 0, 0.995, 0, 0, 0, 1]));
  const node = document.getRoot().listNodes()[0];
  document
    .createAnimation('nod')
    .addSampler(sampler)
    .addChannel(
      document.createAnimationChannel().setTargetNode(node).setTargetPath('rotation').setSampler(sampler),
    );
  const bytes = await new WebIO().writeBinary(document);
  return { name: 'lamp.glb', mimeType: 'model/gltf-binary', buffer: Buffer.from(bytes) };
}

test('a model without wheels, a clip without feet, a broken BVH: each says what is missing', async ({
  page,
  request,
}) => {
  await ridden(page, request, await noddingModel(), straight);
  await expect(page.getByRole('region', { name: 'Wheels' })).toContainText(
    'No wheels were found in Lamp: none of its parts is round and on the ground.',
  );
  const walk = page.getByRole('region', { name: 'Walk' });
  await expect(walk).toContainText('No walk clip found.');
  await choose(page, 'Clip', 'nod');
  await expect(walk).toContainText('No feet were found in “nod”');
  await goTo(page, 'Check');
  await expect(page.getByText(/walks without known feet/)).toBeVisible();

  const header = 'HIERARCY\nROOT hips\n{\n';
  await uploadModel(page, { name: 'walk.bvh', mimeType: 'text/plain', buffer: Buffer.from(header) });
  await expect(
    page.getByText('walk.bvh: is a broken BVH: line 1: found "HIERARCY"; expected HIERARCHY.'),
  ).toBeVisible();
});

test('over ground with a hole a rider keeps its last height, and is told of', async ({ page, request }) => {
  const id = await ridden(page, request, await holedGround(), straight, 'Attach');
  await uploaded(page, await cartModel());
  await attachTo(page, 'Lane');
  await goTo(page, 'Contact');
  await choose(page, 'Ground', 'Holed');
  await page.getByRole('radio', { name: 'On the ground' }).click();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.models.find((model) => model.id === document.ground.model)?.name).toBe('Holed');
  expect(document.riders[2].attachment?.ground.mode).toBe('stick');
  await goTo(page, 'Check');
  // 0.5 m a frame: it is over the gap from 20 to 28 m between frames 41 and 57, its feet a little before and after.
  await expect(
    page.getByText(/there is no ground within 1.5 m above and 1.5 m below its path in frames 4[01]–5[678]/),
  ).toBeVisible();
  await goToFrame(page, 48);
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0, 3);
});
