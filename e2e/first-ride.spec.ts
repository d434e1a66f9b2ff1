import { WebIO } from '@gltf-transform/core';
import { readFileSync } from 'node:fs';
import { validateBytes } from 'gltf-validator';
import {
  accept,
  operate,
  attachTo,
  boardNumber,
  goTo,
  goToFrame,
  importPaths,
  openNewShot,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, squareLane, straightLane } from './support/files.js';
import { expect, test } from './support/test.js';

test('a path file and a model go in, the ride plays, and an animated GLB comes out', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'First ride');
  await importPaths(page, straightLane);
  await expect(page.getByRole('row', { name: 'straight' })).toContainText('48 m');
  await uploadModel(page, await cartModel());
  await expect(page.getByRole('radio', { name: 'C1 Cart' })).toBeVisible();
  await attachTo(page, 'straight');
  await settled(page);

  // 48 m in 239 steps of 1/24 s.
  const speed = (48 / 239) * 24;
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('straight');
  await expect.poll(() => boardNumber(page, 'Speed')).toBeCloseTo(speed, 2);
  await goToFrame(page, 25);
  await expect.poll(() => boardNumber(page, 'Distance')).toBeCloseTo((48 / 239) * 24, 2);
  await expect.poll(() => boardNumber(page, 'Heading')).toBe(0);

  const { document } = await storedShot(request, id);
  expect(document.riders[0].attachment).toMatchObject({
    path: 'straight',
    facing: { mode: 'path', forward: '+z' },
  });
  expect(document.riders[0].attachment?.pace.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [240, 1],
  ]);

  await goTo(page, 'Hand over');
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download GLB' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('First ride.glb');
  const bytes = new Uint8Array(readFileSync(await download.path()));
  const { issues } = await validateBytes(bytes);
  expect(issues.messages.filter(({ severity }) => severity === 0)).toEqual([]);
  const root = (await new WebIO().readBinary(bytes)).getRoot();
  expect(root.listMaterials()[0].getName()).toBe('blue paint');
  const [move] = root.listAnimations()[0].listChannels();
  const places = move.getSampler()?.getOutput()?.getArray() as Float32Array;
  expect(places).toHaveLength(240 * 3);
  for (const frame of [1, 100, 240])
    expect(places[3 * (frame - 1) + 2]).toBeCloseTo((48 * (frame - 1)) / 239, 4);

  const csv = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download CSV' }).click();
  const rows = readFileSync(await (await csv).path(), 'utf8')
    .trim()
    .split('\n');
  expect(rows).toHaveLength(241);
  expect(Number(rows[100].split(',')[11])).toBeCloseTo((48 * 99) / 239, 9);
});

test('plays in real time and stops at the end', async ({ page }) => {
  await openNewShot(page, 'Playing');
  await importPaths(page, squareLane);
  await goTo(page, 'Pace');
  await page.getByRole('textbox', { name: 'Last frame' }).fill('1 s');
  await page.getByRole('textbox', { name: 'Last frame' }).press('Enter');
  await expect(page.getByLabel('Clock')).toContainText('frame 1 / 24');
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(page.getByLabel('Clock')).toContainText('frame 24 / 24');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
});

test('a reload finds the shot unchanged', async ({ page, request }) => {
  const id = await openNewShot(page, 'Kept');
  await importPaths(page, squareLane);
  await uploadModel(page, await cartModel());
  await attachTo(page, 'square');
  await settled(page);
  const before = await storedShot(request, id);
  await page.reload();
  await expect(page.getByRole('radio', { name: 'C1 Cart' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('square');
  await settled(page);
  expect(await storedShot(request, id)).toEqual(before);
  await goTo(page, 'Path');
  await expect(page.getByRole('row', { name: 'square' })).toContainText('40 m');
});

test('undo goes back to the start and redo comes all the way again', async ({ page, request }) => {
  const id = await openNewShot(page, 'Undone');
  const empty = (await storedShot(request, id)).document;
  await importPaths(page, squareLane);
  await operate(page, 'Reverse');
  await accept(page);
  await uploadModel(page, await cartModel());
  await attachTo(page, 'square');
  await settled(page);
  const full = (await storedShot(request, id)).document;
  expect(full.paths[0].points.map((point) => point.position)).toEqual([
    [0, 0, 0],
    [10, 0, 0],
    [10, 0, 10],
    [0, 0, 10],
  ]);
  const undo = page.getByRole('button', { name: /^Undo/ });
  for (let n = 0; n < 4; n++) await undo.click();
  await expect(undo).toBeDisabled();
  await settled(page);
  expect((await storedShot(request, id)).document).toEqual(empty);
  for (let n = 0; n < 4; n++) await page.keyboard.press('Control+Shift+Z');
  await expect(page.getByRole('button', { name: /^Redo/ })).toBeDisabled();
  await settled(page);
  expect((await storedShot(request, id)).document).toEqual(full);
});
