import type { Page } from '@playwright/test';
import { goTo, importPaths, openNewShot, settled, shotIdOf, storedShot } from './support/desk.js';
import { squareLane, straightLane } from './support/files.js';
import { expect, test } from './support/test.js';

/** Lets no save through, as if the server were away. */
const blockSaves = (page: Page) =>
  page.route('**/api/shots/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );

/** Keeps a tab from learning of saves that others make. */
const keepStale = (page: Page) => page.route('**/api/shots/*/revision', (route) => route.abort());

test('a stale tab is told, overwrites nothing, and keeps its own edits as a copy', async ({
  page,
  context,
  request,
}) => {
  const id = await openNewShot(page, 'Two tabs');
  const other = await context.newPage();
  await keepStale(other);
  await other.goto(page.url());
  await expect(other.getByRole('heading', { name: 'Two tabs', level: 1 })).toBeVisible();
  await importPaths(page, squareLane);
  await settled(page);
  const saved = await storedShot(request, id);

  await importPaths(other, straightLane);
  await expect(other.getByRole('alert').filter({ hasText: 'saved in another window' })).toBeVisible();
  await expect(other.getByRole('status', { name: 'Save state' })).toHaveText('newer version saved');
  await expect(other.getByRole('row', { name: 'straight' })).toBeVisible();
  expect(await storedShot(request, id)).toEqual(saved);

  // A reload in between loses nothing either.
  await other.reload();
  await expect(other.getByRole('row', { name: 'straight' })).toBeVisible();
  await other.getByRole('button', { name: 'Save mine as a copy' }).click();
  await expect(other.getByRole('heading', { name: 'Two tabs (my copy)', level: 1 })).toBeVisible();
  const copy = await storedShot(request, shotIdOf(other));
  expect(copy.document.paths.map((path) => path.id)).toEqual(['straight']);
  expect(await storedShot(request, id)).toEqual(saved);
});

test('a stale tab can take the saved shot, with its own one undo away', async ({
  page,
  context,
  request,
}) => {
  const id = await openNewShot(page, 'Taking');
  const other = await context.newPage();
  await keepStale(other);
  await other.goto(page.url());
  await expect(other.getByRole('heading', { name: 'Taking', level: 1 })).toBeVisible();
  await importPaths(page, squareLane);
  await settled(page);
  await importPaths(other, straightLane);
  await other.getByRole('button', { name: /^Use the saved one/ }).click();
  await expect(other.getByRole('row', { name: 'square' })).toBeVisible();
  await settled(other);
  await other.getByRole('button', { name: /^Undo/ }).click();
  await expect(other.getByRole('row', { name: 'straight' })).toBeVisible();
  await settled(other);
  expect((await storedShot(request, id)).document.paths.map((path) => path.id)).toEqual(['straight']);
});

test('edits made while the server is away survive a reload and are saved when it is back', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Offline');
  await blockSaves(page);
  await importPaths(page, squareLane);
  await expect(page.getByRole('status', { name: 'Save state' })).toHaveText('waiting for the server');
  expect((await storedShot(request, id)).document.paths).toEqual([]);
  await page.reload();
  await expect(page.getByText('Restored edits that the server did not have.')).toBeVisible();
  await expect(page.getByRole('row', { name: 'square' })).toBeVisible();
  await page.unroute('**/api/shots/*');
  await settled(page);
  expect((await storedShot(request, id)).document.paths.map((path) => path.id)).toEqual(['square']);
});

test('edits that a closed tab left behind are continued in the next one', async ({
  page,
  context,
  request,
}) => {
  const id = await openNewShot(page, 'Left behind');
  const other = await context.newPage();
  await blockSaves(other);
  await other.goto(page.url());
  await importPaths(other, squareLane);
  await expect(other.getByRole('status', { name: 'Save state' })).toHaveText('waiting for the server');
  await other.close();
  await page.reload();
  await expect(page.getByText('Restored edits that the server did not have.')).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.paths.map((path) => path.id)).toEqual(['square']);
});

test('edits that a closed tab left on an older save are offered as a shot of their own', async ({
  page,
  context,
  request,
}) => {
  const id = await openNewShot(page, 'Overtaken');
  const other = await context.newPage();
  await blockSaves(other);
  await other.goto(page.url());
  await importPaths(other, squareLane);
  await expect(other.getByRole('status', { name: 'Save state' })).toHaveText('waiting for the server');
  await importPaths(page, straightLane);
  await settled(page);
  await other.close();
  await page.reload();
  await page.getByRole('button', { name: 'Save them as a new shot' }).click();
  await expect(page.getByRole('heading', { name: 'Overtaken (recovered)', level: 1 })).toBeVisible();
  const recovered = (await storedShot(request, shotIdOf(page))).document;
  expect(recovered.paths.map((path) => path.id)).toEqual(['square']);
  expect((await storedShot(request, id)).document.paths.map((path) => path.id)).toEqual(['straight']);
});

test('a checkpoint is kept, and gone back to in one step', async ({ page, request }) => {
  const id = await openNewShot(page, 'Checked');
  await importPaths(page, squareLane);
  await settled(page);
  const kept = (await storedShot(request, id)).document;
  await page.getByRole('button', { name: 'Checkpoints' }).click();
  await page.getByRole('textbox', { name: 'Name of the new checkpoint' }).fill('Square only');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Square only' })).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await importPaths(page, straightLane);
  await settled(page);
  await page.getByRole('button', { name: 'Checkpoints' }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Square only' })
    .getByRole('button', { name: 'Restore' })
    .click();
  await expect(page.getByRole('row', { name: 'straight' })).toBeHidden();
  await settled(page);
  expect((await storedShot(request, id)).document).toEqual(kept);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('row', { name: 'straight' })).toBeVisible();
});

test('two windows on one shot learn of each other within seconds; what was done is undone after a reload, down to any step', async ({
  page,
  context,
  request,
}) => {
  const id = await openNewShot(page, 'Two windows');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('heading', { name: 'Two windows', level: 1 })).toBeVisible();
  await importPaths(page, squareLane);
  await settled(page);
  await expect(other.getByRole('row', { name: 'square' })).toBeVisible({ timeout: 8_000 });
  await importPaths(page, straightLane);
  await goTo(page, 'Attach');
  await page.getByRole('button', { name: 'Add a carrier' }).click();
  await settled(page);
  await page.reload();
  await page.getByRole('button', { name: /^Undo: Add carrier/ }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.riders).toEqual([]);
  await page.getByRole('button', { name: 'Earlier steps' }).click();
  // The latest is first: choosing the last of the list undoes all.
  await page.getByRole('menu', { name: 'Earlier steps' }).getByRole('menuitem').last().click();
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toEqual([]);
});

test('the look of day or night is kept', async ({ page }) => {
  await openNewShot(page, 'Night');
  await goTo(page, 'Check');
  await page.getByRole('button', { name: 'Night' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Day' })).toBeVisible();
});
