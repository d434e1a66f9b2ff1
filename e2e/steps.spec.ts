import type { APIRequestContext, Page } from '@playwright/test';
import {
  attachTo,
  boardNumber,
  choose,
  goTo,
  goToFrame,
  importPaths,
  openNewShot,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, straightLane } from './support/files.js';
import { dragBy } from './support/plan.js';
import { expect, test } from './support/test.js';

/** A cart on a straight lane of 48 m along +Z, frames 1 to 240 at 24 fps. */
async function cartOnLane(page: Page, name: string): Promise<string> {
  const id = await openNewShot(page, name);
  await importPaths(page, straightLane);
  await uploadModel(page, await cartModel());
  await attachTo(page, 'straight');
  await settled(page);
  return id;
}

/** The rows of the delivered CSV, by column name. */
async function csvRows(request: APIRequestContext, id: string): Promise<Record<string, number>[]> {
  const text = await (await request.get(`/api/shots/${id}/files/csv`)).text();
  const [header, ...lines] = text
    .trim()
    .split('\n')
    .map((line) => line.split(','));
  return lines.map((line) => Object.fromEntries(header.map((column, i) => [column, Number(line[i])])));
}

test('pace: a key is added where the rider is, eased, and read on the board', async ({ page, request }) => {
  const id = await cartOnLane(page, 'Keys');
  await goTo(page, 'Pace');
  await page.getByRole('radio', { name: 'Metres' }).click();
  await goToFrame(page, 25);
  await page.getByRole('button', { name: 'Key at frame 25' }).click();
  await settled(page);
  const keys = (await storedShot(request, id)).document.riders[0].attachment?.pace.keys ?? [];
  expect(keys.map(({ frame }) => frame)).toEqual([1, 25, 240]);
  expect(keys[1].value).toBeCloseTo((48 * 24) / 239, 9);
  expect(keys[2].value).toBeCloseTo(48, 9);

  // Smooth from rest to rest: half-way along the stretch the speed is one and a half times the mean.
  for (const row of [0, 1]) {
    await page
      .getByRole('button', { name: /^Linear Ease$|^Smooth Ease$/ })
      .nth(row)
      .click();
    await page.getByRole('option', { name: 'Smooth' }).click();
  }
  const place = page.getByRole('textbox', { name: 'Distance', exact: true }).nth(1);
  await place.fill('0 m');
  await place.press('Enter');
  await settled(page);
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await expect.poll(() => boardNumber(page, 'Speed')).toBe(0);
  const rows = await csvRows(request, id);
  const middle = rows[131];
  const u = (middle.frame - 25) / 215;
  expect(middle.speed).toBeCloseTo(((48 * 24) / 215) * 6 * u * (1 - u), 9);
  expect(middle.tz).toBeCloseTo(48 * u * u * (3 - 2 * u), 9);
});

test('facing: nose, roof and place beside the path are in what is delivered', async ({ page, request }) => {
  const id = await cartOnLane(page, 'Facing');
  await goTo(page, 'Facing');
  await choose(page, 'Nose', '−X');
  for (const [label, value] of [
    ['To the left', '250 cm'],
    ['Up', '0.5'],
    ['Ahead', '3 m'],
  ]) {
    const field = page.getByRole('textbox', { name: label, exact: true });
    await field.fill(value);
    await field.press('Enter');
  }
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[0].attachment?.facing).toMatchObject({ forward: '-x', up: '+y' });
  const [first] = await csvRows(request, id);
  expect([first.tx, first.ty, first.tz]).toEqual([2.5, 0.5, 3].map((value) => expect.closeTo(value, 12)));
  // −X is brought to +Z by a quarter turn to the left about Y.
  expect(first.qy).toBeCloseTo(Math.SQRT1_2, 12);
  expect(first.qw).toBeCloseTo(Math.SQRT1_2, 12);
});

test('a number is dragged sideways by its label, as one step to undo', async ({ page, request }) => {
  const id = await cartOnLane(page, 'Dragged');
  await goTo(page, 'Facing');
  const shown = page.getByText('To the left', { exact: true });
  await shown.scrollIntoViewIfNeeded();
  const label = await shown.boundingBox();
  if (label === null) throw new Error('The label is not shown.');
  const from = { x: label.x + 10, y: label.y + label.height / 2 };
  await dragBy(page, from, { x: from.x + 80, y: from.y });
  await settled(page);
  // 80 pixels are 20 steps of 5 cm.
  expect((await storedShot(request, id)).document.riders[0].attachment?.offset.side).toBe(1);
  await page.getByRole('button', { name: 'Undo: Offset' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.offset.side).toBe(0);
});

test('detaching leaves the rider where it stands, or takes it back to where it rested', async ({
  page,
  request,
}) => {
  const id = await cartOnLane(page, 'Detached');
  await goToFrame(page, 25);
  await page.getByRole('button', { name: 'Detach, stay here' }).click();
  await settled(page);
  const stayed = (await storedShot(request, id)).document.riders[0];
  expect(stayed.attachment).toBeNull();
  expect(stayed.rest.translation[2]).toBeCloseTo((48 * 24) / 239, 9);
  await page.getByRole('button', { name: 'Undo: Detach C1' }).click();
  await page.getByRole('button', { name: 'Detach, go back' }).click();
  await settled(page);
  const back = (await storedShot(request, id)).document.riders[0];
  expect([back.attachment, back.rest.translation]).toEqual([null, [0, 0, 0]]);
});

test('deleting a ridden path asks what becomes of its riders, and is one undo', async ({ page, request }) => {
  const id = await cartOnLane(page, 'Deleted path');
  await settled(page);
  const before = (await storedShot(request, id)).document;
  await goToFrame(page, 25);
  await goTo(page, 'Path');
  const remove = page.getByRole('button', { name: 'Delete straight' });
  await remove.click();
  const question = page.getByRole('dialog', { name: 'Delete "straight"?' });
  await expect(question).toContainText('C1 rides it.');
  await page.keyboard.press('Escape');
  await expect(question).toBeHidden();
  expect((await storedShot(request, id)).document).toEqual(before);

  await remove.click();
  await question.getByRole('button', { name: 'Stay where they are at frame 25' }).click();
  await settled(page);
  const stayed = (await storedShot(request, id)).document;
  expect(stayed.paths).toEqual([]);
  expect(stayed.riders[0].attachment).toBeNull();
  expect(stayed.riders[0].rest.translation[2]).toBeCloseTo((48 * 24) / 239, 9);
  await page.getByRole('button', { name: 'Undo: Delete path' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document).toEqual(before);

  await remove.click();
  await question.getByRole('button', { name: 'Go back to where they were before' }).click();
  await settled(page);
  const back = (await storedShot(request, id)).document.riders[0];
  expect([back.attachment, back.rest.translation]).toEqual([null, [0, 0, 0]]);
});

test('check speaks up where a ridden path has no curve', async ({ page, request }) => {
  const document = {
    format: 'fleet-rail-shot',
    version: 2,
    name: 'Curveless',
    paths: [{ id: 'p', name: 'Stub', points: [{ position: [0, 0, 0] }] }],
    riders: [{ id: 'r', name: 'Cart', badge: 'C1', attachment: { path: 'p', ground: { mode: 'stick' } } }],
  };
  const built = (await (await request.post('/api/shots', { data: { document } })).json()) as { id: string };
  await page.goto(`/shots/${built.id}/check`);
  const findings = page.getByRole('list', { name: 'Findings' }).getByRole('listitem');
  await expect(findings).toHaveCount(2);
  await expect(findings.first()).toContainText(
    'Path "Stub" has 1 of the 2 points it needs. Not moving until then: C1.',
  );
  await expect(findings.last()).toContainText('C1 needs ground, but the shot has none');
});
