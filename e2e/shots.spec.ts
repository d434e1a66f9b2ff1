import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { chooseFile, goTo, importPaths, openNewShot, settled, shotIdOf, storedShot } from './support/desk.js';
import { cartModel, squareLane } from './support/files.js';
import { expect, test } from './support/test.js';

const more = async (page: Page, name: string, action: string) => {
  await page.getByRole('button', { name: `More for ${name}`, exact: true }).click();
  await page.getByRole('menuitem', { name: action }).click();
};
const tile = (page: Page, name: string) => page.getByRole('article', { name, exact: true });

test('the demo is there, and its hauler rides the lane', async ({ page, request }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Orchard loop' }).click();
  await expect(page.getByRole('radio', { name: 'H1 Hauler' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('Lane');
  const { document } = await storedShot(request, shotIdOf(page));
  expect(document.models.every((model) => model.source.asset !== undefined)).toBe(true);
});

test('shots are renamed, duplicated, deleted and brought back', async ({ page }) => {
  await openNewShot(page, 'Card');
  await page.getByRole('link', { name: 'All shots' }).click();
  await more(page, 'Card', 'Rename');
  await page.getByRole('textbox', { name: 'Name' }).fill('Better card');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(tile(page, 'Better card')).toBeVisible();
  await more(page, 'Better card', 'Duplicate');
  await expect(tile(page, 'Better card copy')).toBeVisible();
  await more(page, 'Better card', 'Delete');
  await expect(tile(page, 'Better card')).toBeHidden();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(tile(page, 'Better card')).toBeVisible();
  // It stays in reach after the notice is gone, and after the page was left.
  await more(page, 'Better card', 'Delete');
  await expect(tile(page, 'Better card')).toBeHidden();
  await page.reload();
  await page.getByRole('button', { name: /^Deleted \(\d+\)/ }).click();
  await page.getByRole('button', { name: 'Restore Better card', exact: true }).click();
  await expect(tile(page, 'Better card')).toBeVisible();
});

test('the shot is renamed from its desk, and the name can be undone', async ({ page, request }) => {
  const id = await openNewShot(page, 'Working title');
  await page.getByRole('button', { name: 'Rename the shot' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Real title');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Real title', level: 1 })).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.name).toBe('Real title');
  await expect(page).toHaveTitle('Real title – Fleet Rail');
  await page.getByRole('button', { name: 'Undo: Rename the shot' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.name).toBe('Working title');
});

test('a delivered shot file is imported again as it was', async ({ page, request }) => {
  const id = await openNewShot(page, 'There and back');
  await importPaths(page, squareLane);
  await settled(page);
  // An address from before the step was renamed.
  await page.goto(`/shots/${id}/deliver`);
  await expect(page).toHaveURL(new RegExp(`/shots/${id}/hand-over$`));
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download Shot file' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('There and back.shot.json');
  const buffer = readFileSync(await download.path());
  await page.getByRole('link', { name: 'All shots' }).click();
  await chooseFile(page, 'Import a shot file', {
    name: 'back.shot.json',
    mimeType: 'application/json',
    buffer,
  });
  await expect(page.getByRole('heading', { name: 'There and back', level: 1 })).toBeVisible();
  expect(shotIdOf(page)).not.toBe(id);
  expect((await storedShot(request, shotIdOf(page))).document).toEqual(
    (await storedShot(request, id)).document,
  );
});

test('a shot whose model is not here says so, and takes the file when it is brought', async ({
  page,
  request,
}) => {
  const document = {
    format: 'fleet-rail-shot',
    version: 2,
    name: 'Model to come',
    models: [{ id: 'm', name: 'Wagon', source: { file: 'wagon.glb' } }],
    riders: [{ id: 'r', name: 'Wagon', badge: 'W1', model: 'm' }],
  };
  const buffer = Buffer.from(JSON.stringify(document));
  await page.goto('/');
  await chooseFile(page, 'Import a shot file', { name: 'w.shot.json', mimeType: 'application/json', buffer });
  await expect(page.getByRole('radio', { name: 'W1 Wagon' })).toBeVisible();
  await goTo(page, 'Attach');
  await expect(page.getByText('Its model wagon.glb is missing; a stand-in is shown.')).toBeVisible();
  const id = shotIdOf(page);
  const refused = await request.get(`/api/shots/${id}/files/glb`);
  expect(refused.status()).toBe(422);
  expect(((await refused.json()) as { message: string }).message).toContain(
    'whose file wagon.glb is not here',
  );
  await chooseFile(page, 'Upload wagon.glb', await cartModel('wagon.glb'));
  await expect(page.getByText('Its model wagon.glb is missing')).toBeHidden();
  await settled(page);
  expect((await storedShot(request, id)).document.models[0].source.asset).toBeDefined();
  expect((await request.get(`/api/shots/${id}/files/glb`)).status()).toBe(200);
});

test('a file that is no shot is refused with the place and what was expected', async ({ page, request }) => {
  await page.goto('/');
  const count = async () => ((await (await request.get('/api/shots')).json()) as unknown[]).length;
  const before = await count();
  const bad = {
    format: 'fleet-rail-shot',
    version: 2,
    name: 'Bad',
    riders: [{ id: 'r', name: 'R', attachment: { path: 'lanne' } }],
  };
  const buffer = Buffer.from(JSON.stringify(bad));
  await chooseFile(page, 'Import a shot file', {
    name: 'bad.shot.json',
    mimeType: 'application/json',
    buffer,
  });
  await expect(page.getByRole('alert')).toContainText(
    'bad.shot.json was not imported. riders[0].attachment.path: found no path "lanne"; expected a path that exists; there are none',
  );
  expect(await count()).toBe(before);
});
