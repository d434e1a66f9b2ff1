import type { Page } from '@playwright/test';
import { demoShot } from './support/checks.js';
import { choose, fill, goTo, openShotOf, settled, storedShot } from './support/desk.js';
import { expect, test } from './support/test.js';

const even = (to: number, last: number) => ({
  keys: [
    { frame: 1, value: 0 },
    { frame: last, value: to },
  ],
});
const road = {
  id: 'road',
  name: 'Road',
  basis: 'polyline',
  points: [{ position: [0, 0, 0] }, { position: [0, 0, 96] }],
};

/** The cells of a shot's CSV, by frame, rider and part. */
async function rowsOf(page: Page, id: string) {
  const text = await (await page.request.get(`/api/shots/${id}/files/csv`)).text();
  const rows = text.split('\n').map((row) => row.split(','));
  return (frame: number, rider: string, part = '') =>
    rows
      .find((cells) => Number(cells[0]) === frame && cells[2] === rider && cells[3] === part)
      ?.slice(4, 11)
      .map(Number);
}

test('a formation is opened again, with what was changed of one, and thinned; a string is spaced anew', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Flight',
      range: { first: 1, last: 97 },
      paths: [road],
      riders: [
        {
          id: 'k',
          name: 'Kestrel',
          badge: 'K1',
          kind: 'creature',
          attachment: { path: 'road', pace: even(48, 97) },
        },
        {
          id: 't',
          name: 'Truck',
          badge: 'T2',
          kind: 'vehicle',
          attachment: { path: 'road', pace: even(60, 97) },
        },
        { id: 'w', name: 'Wagon', badge: 'W3' },
      ],
    },
    'Attach',
  );
  const stored = async () => {
    await settled(page);
    return (await storedShot(request, id)).document;
  };
  const offset = async (name: string) =>
    (await stored()).riders.find((rider) => rider.name === name)?.attachment?.offset;
  await page.getByRole('button', { name: 'Formation', exact: true }).click();
  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  await choose(page, 'Arrangement', 'One behind another');
  await fill(page, 'Copies', '3');
  await fill(page, 'Spacing', '2');
  await page.getByRole('button', { name: 'Add 3 copies' }).click();
  expect((await offset('Kestrel 3'))?.along).toBe(-4);

  // One of them is lifted; it keeps that when all are set further apart.
  await page.getByRole('radio', { name: /Kestrel 3$/ }).click();
  await expect(page.getByText('is number 2 behind K1.')).toBeVisible();
  await goTo(page, 'Facing');
  await page
    .getByRole('region', { name: 'Offset from its path' })
    .getByLabel('Up', { exact: true })
    .fill('1.5');
  await page.keyboard.press('Enter');
  await goTo(page, 'Attach');
  await page.getByRole('button', { name: 'Go to K1' }).click();
  await page.getByRole('button', { name: 'Change the formation of 3' }).click();
  await fill(page, 'Spacing', '5');
  await fill(page, 'Copies', '2');
  await page.getByRole('button', { name: 'Apply to the formation' }).click();
  expect(await offset('Kestrel 3')).toMatchObject({ along: -10, rise: 1.5 });
  expect((await stored()).riders.map(({ name }) => name)).toEqual([
    'Kestrel',
    'Truck',
    'Wagon',
    'Kestrel 2',
    'Kestrel 3',
  ]);
  expect((await stored()).formations[0]).toMatchObject({ leader: 'k', spacing: 5, arrangement: 'file' });
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await stored()).formations[0].members).toHaveLength(3);
  expect((await offset('Kestrel 3'))?.along).toBe(-4);

  await page.getByRole('radio', { name: 'T2 Truck' }).click();
  await page.getByRole('button', { name: 'String', exact: true }).click();
  await page.getByRole('button', { name: 'Hang a string behind T2' }).click();
  await choose(page, 'Unit', 'W3 Wagon');
  await fill(page, 'Units', '2');
  await fill(page, 'Gap', '3');
  await page.getByRole('button', { name: 'Hang it' }).click();
  await page.getByRole('button', { name: 'Change the string of 2' }).click();
  await fill(page, 'Units', '3');
  await fill(page, 'Gap', '4');
  await page.getByRole('button', { name: 'Apply to the string' }).click();
  await settled(page);
  const at = await rowsOf(page, id);
  const chain = (await stored()).riders.filter(({ attachment }) => attachment?.coupledTo);
  expect(chain.map((rider) => at(97, rider.id)?.[2])).toEqual([56, 52, 48].map((z) => expect.closeTo(z, 9)));
});

test('one line of a rider at a time is keyed, dragged and eased in the diagram, and played so', async ({
  page,
  request,
}) => {
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Lines',
      range: { first: 1, last: 97 },
      paths: [road],
      riders: [
        {
          id: 'c',
          name: 'Camera',
          badge: 'C1',
          kind: 'camera',
          camera: { focal: 35 },
          attachment: { path: 'road', pace: even(48, 97), offset: { rise: 2 } },
        },
      ],
    },
    'Facing',
  );
  const rider = async () => {
    await settled(page);
    return (await storedShot(request, id)).document.riders[0];
  };
  const bar = page.getByRole('toolbar', { name: 'Run diagram shows' });
  await bar.getByRole('button', { name: /Line$/ }).click();
  await page.getByRole('option', { name: 'Offset up' }).click();
  const box = (await page.getByRole('group', { name: 'Run diagram', exact: true }).boundingBox())!;
  const put = async (part: number) => page.mouse.dblclick(box.x + 56 + (box.width - 70) * part, box.y + 40);
  await put(0.25);
  await put(0.75);
  expect((await rider()).attachment?.offsetKeys.map(({ frame, rise }) => [frame, rise])).toEqual([
    [25, 2],
    [73, 2],
  ]);
  // By the keyboard it goes up by its own step, and later; all other values of the offset stay.
  await page.getByRole('button', { name: 'Key at frame 73: 2 m' }).press('Shift+ArrowUp');
  await page.getByRole('button', { name: 'Key at frame 73: 2.5 m' }).press('ArrowRight');
  expect((await rider()).attachment?.offsetKeys[1]).toMatchObject({ frame: 74, rise: 2.5, side: 0, yaw: 0 });
  const before = await rowsOf(page, id);
  expect(before(97, 'c')?.[1]).toBe(2.5);
  // Smooth from rest to rest; half-way it is half-way.
  expect(before(49, 'c')?.[1]).toBeGreaterThan(2.2);

  // Both are chosen in a box; the ease of one of them, set in the list, is set of both.
  await page.keyboard.down('Shift');
  await page.mouse.move(box.x + 60, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 20, box.y + box.height - 60, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(page.locator('[data-scale="time"]')).toBeVisible();
  await page.getByRole('button', { name: 'Keys of the offset (2 keys)' }).click();
  const key = page.getByRole('group', { name: 'offset up, key 1' });
  await key.getByRole('button', { name: /Ease$/ }).click();
  await page.getByRole('option', { name: 'Hold' }).click();
  expect((await rider()).attachment?.offsetKeys.map(({ ease }) => ease)).toEqual(['hold', 'hold']);
  const held = await rowsOf(page, id);
  expect([held(73, 'c')?.[1], held(74, 'c')?.[1]]).toEqual([2, 2.5]);

  // A focal length is drawn by handles, and comes back from the server unchanged.
  await page.getByRole('button', { name: /^Zoom( \(|$)/ }).click();
  await page.getByRole('button', { name: /^Key focal length at frame/ }).click();
  await put(0.9);
  const zoom = page.getByRole('group', { name: 'focal length, key 1' });
  await zoom.getByRole('button', { name: /Ease$/ }).click();
  await page.getByRole('option', { name: 'Handles' }).click();
  await page.getByRole('button', { name: 'Handle out of key 1' }).press('Shift+ArrowUp');
  const { camera } = await rider();
  expect(camera?.keys[0].ease).toBe('handles');
  expect(camera?.keys[0].out?.[1]).toBeCloseTo(10, 6);
});

test('clips are blocks that are moved, trimmed and blended; cues play one, hide a rider and cut to a camera', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Blocks',
      range: { first: 1, last: 193 },
      models: orchard.models,
      paths: [road],
      riders: [
        {
          id: 'p',
          name: 'Picker',
          badge: 'P1',
          kind: 'character',
          model: 'picker',
          rest: { translation: [3, 0, 5] },
        },
        {
          id: 'h',
          name: 'Hauler',
          badge: 'H2',
          kind: 'vehicle',
          model: 'hauler',
          attachment: { path: 'road', pace: even(48, 193) },
        },
        {
          id: 'c',
          name: 'Camera',
          badge: 'C3',
          kind: 'camera',
          camera: {},
          rest: { translation: [9, 4, 0] },
        },
      ],
    },
    'Contact',
  );
  const stored = async () => {
    await settled(page);
    return (await storedShot(request, id)).document;
  };
  await page.getByRole('button', { name: 'Clips', exact: true }).click();
  await page.getByRole('button', { name: 'Add a clip here' }).click();
  await choose(page, 'Clip', 'pick');
  const whole = page.getByRole('slider', { name: 'Clip 1, pick', exact: true });
  await whole.press('Shift+ArrowRight');
  await page.getByRole('slider', { name: 'Clip 1, pick begins' }).press('Shift+ArrowRight');
  const end = page.getByRole('slider', { name: 'Clip 1, pick ends' });
  await end.press('ArrowLeft');
  const [block] = (await stored()).riders[0].clips;
  // Ten frames later as a whole; ten more of its beginning are cut off, at 24 a second.
  expect(block).toMatchObject({ clip: 'pick', frame: 21, by: 'time' });
  expect(block.from).toBeCloseTo(10 / 24, 6);
  const before = block.until;
  const box = (await whole.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  const [moved] = (await stored()).riders[0].clips;
  expect(moved.frame).toBeGreaterThan(21);
  expect(moved.until - moved.frame).toBe(before - 21);
  const at = await rowsOf(page, id);
  const parts = (frame: number) =>
    JSON.stringify(at(frame, 'p', 'hand_right') ?? at(frame, 'p', 'arm_right'));
  const middle = Math.round((moved.frame + moved.until) / 2);
  expect(parts(middle)).not.toBe(parts(1));
  expect(parts(moved.until + 1)).toBe(parts(1));

  await goTo(page, 'Pace');
  await expect(page.getByRole('group', { name: 'Clips', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Cues', exact: true }).click();
  const add = async (name: string, action: string) => {
    await page.getByRole('button', { name: 'Add a cue' }).click();
    const cue = page.getByRole('group', { name, exact: true });
    await cue.getByRole('button', { name: /When$/ }).click();
    await page.getByRole('option', { name: 'Distance', exact: true }).click();
    await cue.getByRole('button', { name: /Rider$/ }).click();
    await page.getByRole('option', { name: 'H2 Hauler' }).click();
    await cue.getByRole('button', { name: /Target$/ }).click();
    await page.getByRole('option', { name: 'P1 Picker' }).click();
    await cue.getByRole('button', { name: /Action$/ }).click();
    await page.getByRole('option', { name: action, exact: true }).click();
    return cue;
  };
  const plays = await add('Cue 1', 'Plays a clip');
  await expect(plays).toContainText('Acts at frame 41');
  await add('Cue 2', 'Shows or hides');
  const cuts = await add('Cue 3', 'Cuts to');
  await cuts.getByRole('textbox', { name: 'Distance reached' }).fill('24');
  await page.keyboard.press('Enter');
  await expect(cuts).toContainText('Acts at frame 97');
  const { cues } = await stored();
  expect(cues.map(({ action }) => [action.kind, action.rider])).toEqual([
    ['play', 'p'],
    ['show', 'p'],
    ['camera', 'c'],
  ]);
  // It is shown from 10 m on: before frame 41 it has no rows at all.
  const rows = await rowsOf(page, id);
  expect([rows(40, 'p'), rows(41, 'p')?.slice(0, 3)]).toEqual([undefined, [3, 0, 5]]);
  await page.getByRole('radio', { name: 'Through C3' }).click();
  await expect(page.getByRole('img', { name: 'Picture of C3 Camera' })).toBeVisible();
});

test('a cue turns a train out to another path, and its wagon over the same place', async ({
  page,
  request,
}) => {
  const straight = (id: string, name: string, from: number[], to: number[]) => ({
    id,
    name,
    basis: 'polyline',
    points: [{ position: from }, { position: to }],
  });
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Points',
      range: { first: 1, last: 97 },
      paths: [road, straight('siding', 'Siding', [0, 0, 24], [30, 0, 24])],
      riders: [
        { id: 'l', name: 'Loco', badge: 'L1', attachment: { path: 'road', pace: even(48, 97) } },
        {
          id: 'w',
          name: 'Wagon',
          badge: 'W2',
          attachment: { path: 'road', coupledTo: { rider: 'l', gap: 6 } },
        },
      ],
    },
    'Pace',
  );
  await page.getByRole('button', { name: 'Cues', exact: true }).click();
  await page.getByRole('button', { name: 'Add a cue' }).click();
  const cue = page.getByRole('group', { name: 'Cue 1', exact: true });
  await cue.getByRole('button', { name: /Target$/ }).click();
  await page.getByRole('option', { name: 'L1 Loco' }).click();
  await cue.getByRole('button', { name: /Action$/ }).click();
  await page.getByRole('option', { name: 'Switches to a path' }).click();
  await expect(cue.getByRole('button', { name: /Path$/ })).toContainText('Siding');
  await cue.getByRole('textbox', { name: 'Distance reached' }).fill('24');
  await page.keyboard.press('Enter');
  await expect(cue).toContainText('Acts at frame 49');
  await settled(page);
  expect((await storedShot(request, id)).document.cues[0]).toMatchObject({
    trigger: { kind: 'distance', rider: 'l' },
    action: { kind: 'path', rider: 'l', path: 'siding' },
    off: false,
  });
  const at = await rowsOf(page, id);
  const place = (who: string, frame: number) => at(frame, who)?.slice(0, 3);
  const near = (...values: number[]) => values.map((value) => expect.closeTo(value, 6));
  expect(place('l', 41)).toEqual(near(0, 0, 20));
  expect(place('l', 69)).toEqual(near(10, 0, 24));
  expect(place('w', 57)).toEqual(near(0, 0, 22));
  expect(place('w', 69)).toEqual(near(4, 0, 24));
  // The path goes, and what turned out to it.
  await goTo(page, 'Path');
  await page.getByRole('row', { name: /Siding/ }).click();
  await page.getByRole('button', { name: 'Delete Siding' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.cues).toEqual([]);
});
