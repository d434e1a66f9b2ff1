import type { Page } from '@playwright/test';
import {
  attachTo,
  boardNumber,
  fill,
  goTo,
  importPaths,
  openNewShot,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, straightLane } from './support/files.js';
import { holedGround } from './support/ground-models.js';
import { stageBox } from './support/plan.js';
import { expect, test } from './support/test.js';

async function chooseGround(page: Page, name: string): Promise<void> {
  await page
    .getByRole('region', { name: 'Ground' })
    .getByRole('button', { name: /Ground$/ })
    .click();
  await page.getByRole('option', { name, exact: true }).click();
}

test('a new shot has a floor, which is moved, left out, and gives way to a model that is uploaded as the ground', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Floor');
  const stored = async () => (await storedShot(request, id)).document;
  expect((await stored()).ground).toEqual({ model: null, nodes: [], level: 0 });
  await importPaths(page, straightLane);
  await uploadModel(page, await cartModel());
  await attachTo(page, 'straight');
  await goTo(page, 'Contact');
  await page.getByRole('radio', { name: 'On the ground' }).click();
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0, 6);
  await fill(page, 'Height of the floor', '1.2');
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(1.2, 6);
  // Further off than it looks for ground it keeps the height of its path.
  await fill(page, 'Height of the floor', '-30');
  await expect.poll(() => boardNumber(page, 'Height')).toBeCloseTo(0, 6);
  await chooseGround(page, 'None');
  await expect(page.getByText('Choose the ground above.')).toBeVisible();
  await settled(page);
  expect((await stored()).ground.level).toBeNull();
  await chooseGround(page, 'Level floor');
  await expect(page.getByRole('textbox', { name: 'Height of the floor' })).toHaveValue('0 m');

  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Upload a ground' }).click();
  await (await chooser).setFiles(await holedGround());
  await expect(page.getByRole('button', { name: 'Holed Ground', exact: true })).toBeVisible();
  await settled(page);
  const { ground, models, riders } = await stored();
  expect(models.find((model) => model.id === ground.model)?.name).toBe('Holed');
  expect(riders).toHaveLength(1);

  // A model that was added as a rider is made the ground instead, in one step.
  await chooseGround(page, 'Level floor');
  await uploadModel(page, await holedGround());
  await expect(page.getByText('H2 is added as a rider.')).toBeVisible();
  await page.getByRole('button', { name: 'Make H2 the ground' }).click();
  await settled(page);
  const after = await stored();
  expect(after.riders.map(({ badge }) => badge)).toEqual(['C1']);
  expect(after.models.find((model) => model.id === after.ground.model)?.name).toBe('Holed');
});

test('a path that is drawn in plan begins on the floor, and goes on at the height it began', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'On the floor');
  await goTo(page, 'Contact');
  await fill(page, 'Height of the floor', '1.2');
  await goTo(page, 'Path');
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const { x, y } = await stageBox(page);
  await page.mouse.click(x + 300, y + 200);
  await page.mouse.click(x + 500, y + 300);
  await page.keyboard.press('Enter');
  await settled(page);
  const [path] = (await storedShot(request, id)).document.paths;
  expect(path.points.map(({ position }) => position[1])).toEqual([1.2, 1.2]);
});
