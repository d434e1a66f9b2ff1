import { WebIO } from '@gltf-transform/core';
import type { APIRequestContext, Locator, Page } from '@playwright/test';
import { circle, once, range } from './support/courses.js';
import { along, openLane, paceOf, riding } from './support/lane.js';
import { boardNumber, choose, fill, openShotOf, settled, storedShot } from './support/desk.js';
import { expect, test } from './support/test.js';

const middle = async (knob: Locator) => {
  const box = await knob.boundingBox();
  if (box === null) throw new Error('It is not to be seen.');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
const key = (page: Page, frame: number) =>
  page.getByRole('button', { name: new RegExp(`^Key at frame ${frame}:`) });
/** Puts the playhead at a frame by the diagram's own axis. */
async function playheadAt(page: Page, frame: number, keys: [number, number]): Promise<void> {
  const [a, b] = [await middle(key(page, keys[0])), await middle(key(page, keys[1]))];
  const x = a.x + ((b.x - a.x) * (frame - keys[0])) / (keys[1] - keys[0]);
  const box = await page.getByRole('group', { name: 'Run diagram', exact: true }).boundingBox();
  await page.mouse.click(x, (box?.y ?? 0) + 30);
  await expect(page.getByLabel('Clock')).toContainText(`frame ${frame} /`);
}
const board = async (page: Page, name: string, value: number) =>
  expect.poll(() => boardNumber(page, name)).toBeCloseTo(value, 1);

test('a stop made and lengthened in the diagram: it stands for its length, and what follows comes later', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  await expect(key(page, 121)).toBeVisible();
  const [start, end] = [await middle(key(page, 1)), await middle(key(page, 121))];
  await page.mouse.dblclick((start.x + end.x) / 2, (start.y + end.y) / 2);
  await expect(key(page, 61)).toBeVisible();
  await key(page, 61).focus();
  await key(page, 61).press(' ');
  await page.getByRole('button', { name: 'Stop at key 2' }).click();
  await expect(key(page, 85)).toBeVisible();
  await playheadAt(page, 70, [1, 145]);
  await board(page, 'Speed', 0);
  await board(page, 'Distance', 30);

  const [from, to] = [await middle(key(page, 61)), await middle(key(page, 85))];
  const perFrame = (to.x - from.x) / 24;
  await page.mouse.move((from.x + to.x) / 2, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2 + 12 * perFrame, from.y, { steps: 4 });
  await expect(page.getByText('stop 1.50 s')).toBeVisible();
  await page.mouse.up();
  await settled(page);
  const { keys } = await paceOf(request, id);
  expect(keys.map(({ frame, value }) => [frame, Number(value.toFixed(6))])).toEqual([
    [1, 0],
    [61, 30],
    [97, 30],
    [157, 60],
  ]);
  await playheadAt(page, 96, [1, 157]);
  await board(page, 'Speed', 0);
  // Half a second after it goes on at 12 m/s.
  await playheadAt(page, 109, [1, 157]);
  await board(page, 'Distance', 36);
  await page.keyboard.press('Control+z');
  await expect(key(page, 145)).toBeVisible();
});

test('a stretch is made faster, keys are boxed and scaled, and taken out by the keyboard', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request, { keys: [...along.keys, { frame: 181, value: 60 }] });
  const [start, end] = [await middle(key(page, 1)), await middle(key(page, 121))];
  const perFrame = (end.x - start.x) / 120;
  const x = (start.x + end.x) / 2;
  const y = (start.y + end.y) / 2;
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 24 * perFrame, y, { steps: 4 });
  await expect(page.getByText('15.00 m/s · 54.0 km/h')).toBeVisible();
  await page.mouse.up();
  await expect(key(page, 97)).toBeVisible();
  await expect(key(page, 157)).toBeVisible();

  // A box around the last two, then its right edge to twice their time.
  const [second, third] = [await middle(key(page, 97)), await middle(key(page, 157))];
  await page.keyboard.down('Shift');
  await page.mouse.move(second.x - 20, second.y - 14);
  await page.mouse.down();
  await page.mouse.move(third.x + 20, third.y + 20, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(key(page, 157)).toHaveAttribute('aria-pressed', 'true');
  const grip = await middle(page.locator('[data-scale=time]'));
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x + 60 * perFrame, grip.y, { steps: 4 });
  await page.mouse.up();
  await expect(key(page, 217)).toBeVisible();
  await key(page, 217).press('Delete');
  await settled(page);
  expect((await paceOf(request, id)).keys.map(({ frame }) => frame)).toEqual([1]);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await paceOf(request, id)).keys.map(({ frame }) => frame)).toEqual([1, 97, 217]);
});

test('a key dragged near a mark snaps to it, also where the wheel has brought it nearer', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  const wide = (await middle(key(page, 121))).x - (await middle(key(page, 1))).x;
  await page.mouse.move((await middle(key(page, 1))).x, (await middle(key(page, 121))).y + 40);
  await page.mouse.wheel(0, -300);
  await expect
    .poll(async () => (await middle(key(page, 121))).x - (await middle(key(page, 1))).x)
    .toBeGreaterThan(1.4 * wide);
  const knob = await middle(key(page, 121));
  const start = await middle(key(page, 1));
  const perMetre = (start.y - knob.y) / 60;
  await page.mouse.move(knob.x, knob.y);
  await page.mouse.down();
  await page.mouse.move(knob.x, knob.y + 29 * perMetre, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  expect((await paceOf(request, id)).keys[1].value).toBe(30);
});

test('speed first, with a slow place: the board shows the exponential it is; standing there is refused', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  await page.getByRole('radio', { name: 'By speed' }).click();
  await expect(page.getByText(/The same motion by \d+ keys, within 0\.00 mm/)).toBeVisible();
  await page.getByRole('radio', { name: 'At distances' }).click();
  await page.getByRole('button', { name: 'At Gate' }).click();
  const first = page.getByRole('group', { name: 'Speed 1' });
  const second = page.getByRole('group', { name: 'Speed 2' });
  await first.getByRole('button', { name: /Ease$/ }).click();
  await page.getByRole('option', { name: 'Linear' }).click();
  const speed = second.getByRole('textbox', { name: 'Speed' });
  await speed.fill('0');
  await speed.press('Enter');
  await expect(second.getByText('Enter 0.01 m/s or more.')).toBeVisible();
  await speed.fill('3 m/s');
  await speed.press('Enter');
  await settled(page);
  expect((await paceOf(request, id)).speeds).toEqual([
    { distance: 0, speed: 12, ease: 'linear' },
    { distance: 30, speed: 3, ease: 'smooth' },
  ]);
  // From 12 to 3 m/s evenly over 30 m: v = 12 − 0.3 s, so s = 40 (1 − e^(−0.3 t)).
  // Away from the field, so that the full stop is a key of the desk.
  await page.getByRole('link', { name: 'Pace', exact: true }).focus();
  for (let step = 0; step < 48; step++) await page.keyboard.press('.');
  await expect(page.getByLabel('Clock')).toContainText('frame 49 /');
  await board(page, 'Distance', 40 * (1 - Math.exp(-0.6)));
  await board(page, 'Speed', 12 * Math.exp(-0.6));
});

test('driven with a stop at a mark: it takes as long as the sums say and stands there', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  await page.getByRole('radio', { name: 'Driven' }).click();
  for (const [field, text] of [
    ['Top speed', '36 km/h'],
    ['Speeding up', '2'],
    ['Braking', '4'],
  ]) {
    await fill(page, field, text);
  }
  await page.getByText('Limit jerk').click();
  for (const end of ['Departs', 'Arrives']) {
    await page.getByRole('radiogroup', { name: end }).getByRole('radio', { name: 'Stopped' }).click();
  }
  await page.getByRole('button', { name: /^Stops/ }).click();
  await page.getByRole('button', { name: 'Stop at Gate' }).click();
  await fill(page, 'Stops for', '1.5 s');
  // Each half: up to v = √(2 · 30 · 8/6) and down again, v/2 + v/4 seconds.
  const half = Math.sqrt(80) * 0.75;
  await expect(page.getByText(`It takes ${(2 * half + 1.5).toFixed(2)} s`)).toBeVisible();
  await settled(page);
  const { mode, drive } = await paceOf(request, id);
  expect(mode).toBe('drive');
  expect(drive).toMatchObject({ top: 10, jerk: null, stops: [{ distance: 30, seconds: 1.5 }] });
  await page.getByRole('button', { name: 'Fit its top speed to the range' }).click();
  await expect(page.getByText(/^It takes 16\.6[0-9] s, 399 frames/)).toBeVisible();
  await page.getByRole('radio', { name: 'By keys' }).click();
  await expect(page.getByText(/The same motion by \d+ keys/)).toBeVisible();
  await settled(page);
  expect((await paceOf(request, id)).keys.some(({ value }) => value === 30)).toBe(true);
});

/** Position of a node by frame, from a baked file. */
async function bakedPlaces(request: APIRequestContext, id: string, name: string): Promise<number[][]> {
  const response = await request.get(`/api/shots/${id}/files/glb`);
  expect(response.status()).toBe(200);
  const root = (await new WebIO().readBinary(new Uint8Array(await response.body()))).getRoot();
  const channel = root
    .listAnimations()[0]
    .listChannels()
    .find((one) => one.getTargetNode()?.getName() === name && one.getTargetPath() === 'translation');
  const values = [...(channel?.getSampler()?.getOutput()?.getArray() ?? [])];
  return Array.from({ length: values.length / 3 }, (_, i) => values.slice(3 * i, 3 * i + 3));
}
const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((v, k) => v - b[k]));

test('a loop with a doubled frame is closed by the least change, and its file has the frame once', async ({
  page,
  request,
}) => {
  const shot = {
    name: 'Round',
    loop: true,
    range,
    paths: [{ ...circle, closed: false }],
    riders: [riding({ ...once }, 'ring')],
  };
  const ring = { ...shot.paths[0], basis: 'through', closed: true, knots: null, degree: 3 };
  const points = Array.from({ length: 24 }, (_, i) => ({
    position: [-20 * Math.cos((i * Math.PI) / 12), 0, 20 * Math.sin((i * Math.PI) / 12)],
  }));
  const id = await openShotOf(page, request, { ...shot, paths: [{ ...ring, points }] }, 'Pace');
  await page.getByRole('button', { name: 'Loop and seam' }).click();
  await expect(page.getByRole('table', { name: 'Gaps at the seam' })).toContainText('Speed');
  await page.getByRole('button', { name: 'Close Speed of R1' }).click();
  await expect(page.getByRole('group', { name: 'Whole laps' })).toContainText('1 lap a cycle');
  await page.getByRole('button', { name: 'Apply the smallest change' }).click();
  await expect(page.getByText(/The loop closes: all/)).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[0].attachment?.pace.keys.map(({ frame }) => frame)).toEqual([1, 122]);

  const places = await bakedPlaces(request, id, 'Runner');
  expect(places).toHaveLength(121);
  // From the last to the first it is one step like every other.
  expect(apart(places[120], places[0])).toBeCloseTo(apart(places[0], places[1]), 2);
  const more = { ...document, range: { first: 1, last: 122 } };
  const other = await request.post('/api/shots', { data: { document: more } });
  const onward = await bakedPlaces(request, ((await other.json()) as { id: string }).id, 'Runner');
  expect(apart(onward[121], places[0])).toBeLessThan(1e-5);
  await page.getByRole('button', { name: 'Show the seam' }).click();
  await expect(page.getByRole('img', { name: 'Frame 1 over frame 121' })).toBeVisible();
});

test('a long ride becomes a short loop by relay', async ({ page, request }) => {
  const id = await openLane(page, request, { keys: [along.keys[0], { frame: 97, value: 60 }] });
  await page.getByRole('button', { name: 'Loop and seam' }).click();
  await page.getByRole('button', { name: 'Relay of R1…' }).click();
  await expect(page.getByText('A ride of 96 frames becomes a loop of 24')).toBeVisible();
  await page.getByRole('button', { name: 'Make the relay' }).click();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.range).toEqual({ first: 1, last: 24 });
  expect(document.riders.map(({ attachment }) => attachment?.pacedBy?.delay ?? 0)).toEqual([
    0, -24, -48, -72,
  ]);
  await board(page, 'Distance', 0);
  await page.getByRole('radio', { name: /Runner 3/ }).click();
  await board(page, 'Distance', 30);
});

test('a cue opens the barn gate as the truck comes near, on the stage’s numbers and in the file', async ({
  page,
  request,
}) => {
  const models = (await (await request.get('/api/models')).json()) as { id: string; name: string }[];
  const asset = models.find(({ name }) => name === 'Gate')?.id;
  expect(asset).toBeDefined();
  const gate = {
    id: 'gate',
    name: 'Gate',
    kind: 'prop',
    badge: 'G2',
    model: 'gate',
    rest: { translation: [0, 0, 60] },
  };
  const id = await openLane(page, request, along, {
    models: [{ id: 'gate', name: 'Gate', source: { asset } }],
    riders: [riding(along), gate],
  });
  await page.getByRole('button', { name: 'Cues' }).click();
  await page.getByRole('button', { name: 'Add a cue' }).click();
  await expect(page.getByRole('checkbox', { name: 'Cue 1' })).toBeChecked();
  await choose(page, 'When', 'Gap of two');
  await choose(page, 'Action', 'Turns a part');
  await choose(page, 'Part', 'gate_left');
  for (const [n, at, turned] of [
    [2, '30 m', '0'],
    [1, '10 m', '90'],
  ] as const) {
    const line = page.getByRole('group', { name: `Cue 1, key ${n}` });
    for (const [label, text] of [
      ['Turned', turned],
      ['At', at],
    ]) {
      const field = line.getByRole('textbox', { name: label });
      await field.fill(text);
      await field.press('Enter');
    }
    await line.getByRole('button', { name: /Ease$/ }).click();
    await page.getByRole('option', { name: 'Linear' }).click();
  }
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.cues).toMatchObject([
    {
      trigger: { kind: 'gap', rider: 'r', other: 'gate' },
      action: { kind: 'turn', rider: 'gate', node: 'gate_left', axis: '+y' },
      keys: [
        { at: 10, value: 90 },
        { at: 30, value: 0 },
      ],
      off: false,
    },
  ]);
  const csv = await (await request.get(`/api/shots/${id}/files/csv`)).text();
  const rows = csv
    .split('\n')
    .map((line) => line.split(','))
    .filter(([, , , part]) => part === 'gate_left');
  expect(rows).toHaveLength(400);
  // At frame 81 the truck is at 40 m, 20 m from the gate: half open, 45°.
  const [qx, qy, qz, qw] = rows[80].slice(7, 11).map(Number);
  expect([qx, qz]).toEqual([0, 0]);
  expect((2 * Math.atan2(qy, qw) * 180) / Math.PI).toBeCloseTo(45, 4);
  expect(Number(rows[0][8])).toBe(0);
});

test('two takes are seen together, swapped, and either kept', async ({ page, request }) => {
  const id = await openLane(page, request);
  await page.getByRole('button', { name: 'Compare takes' }).click();
  await page.getByRole('button', { name: 'Keep a take' }).click();
  await key(page, 121).focus();
  for (let step = 0; step < 3; step++) await key(page, 121 + 10 * step).press('Shift+ArrowRight');
  await expect(key(page, 151)).toBeVisible();
  const dotted = page.locator('[data-take="Take 1"]');
  await expect(dotted).toBeVisible();
  // The pale figure on the stage is named.
  await expect(page.getByText('Take 1').nth(1)).toBeVisible();
  await page.getByRole('button', { name: 'Swap', exact: true }).click();
  await expect(key(page, 121)).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[0].attachment?.pace.keys[1].frame).toBe(121);
  expect(document.riders[0].attachment?.takes).toMatchObject([
    { name: 'Take 1', pace: { keys: [{}, { frame: 151 }] } },
  ]);
  await page.getByRole('button', { name: 'Delete Take 1' }).click();
  await expect(dotted).toBeHidden();
});

test('slow motion over a stretch leaves the keys alone; the rate is changed as asked', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  await page.getByRole('button', { name: 'Retime' }).click();
  await page.getByRole('button', { name: 'Add a retime' }).click();
  // It begins with a second at half speed.
  for (let step = 0; step < 24; step++) await page.keyboard.press('.');
  await expect(page.getByLabel('Clock')).toContainText('frame 25 /');
  // A second on, at half of 12 m/s.
  await board(page, 'Distance', 6);
  await board(page, 'Speed', 6);
  // Frame 121 shows the work’s frame 97; a second from there on takes four.
  await page.getByRole('button', { name: 'Speed from frame to frame…' }).click();
  const span = page.getByRole('group', { name: 'Speed from frame to frame' });
  await fill(span, 'To frame', '145');
  await fill(span, 'From frame', '121');
  await fill(span, 'Speed', '25');
  await expect(span.getByRole('status')).toHaveText('Source frames 121 to 145 then last until frame 217.');
  await span.getByRole('button', { name: 'Set the speed' }).click();
  await fill(page, 'Frame rate', '48');
  await page.getByRole('button', { name: 'Keep the seconds' }).click();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect([document.fps, document.range.last]).toEqual([48, 800]);
  expect(document.riders[0].attachment?.pace.keys.map(({ frame }) => frame)).toEqual([1, 241]);
  expect(document.retimes[0].keys).toMatchObject([
    { frame: 1, source: 1 },
    { frame: 97, source: 49 },
    { frame: 241, source: 193 },
    { frame: 433, source: 241 },
  ]);
});
