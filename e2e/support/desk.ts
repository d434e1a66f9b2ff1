import type { Shot } from '@fleet-rail/core';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import type { TestFile } from './files.js';

/** Opens the desk of a new empty shot. */
export async function openNewShot(page: Page, name: string): Promise<string> {
  const response = await page.request.post('/api/shots', { data: { name } });
  expect(response.status()).toBe(201);
  const { id } = (await response.json()) as { id: string };
  await page.goto(`/shots/${id}/path`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  return id;
}

export function shotIdOf(page: Page): string {
  const id = /\/shots\/([^/]+)/.exec(page.url())?.[1];
  if (id === undefined) throw new Error(`No shot is open at ${page.url()}`);
  return id;
}

export async function goTo(page: Page, station: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: station }).click();
  await expect(page.getByRole('heading', { name: station, level: 2 })).toBeVisible();
}

/** Chooses a file through the button that asks for one. */
export async function chooseFile(page: Page, button: string, file: TestFile): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: button }).click();
  await (await chooser).setFiles({ name: file.name, mimeType: file.mimeType, buffer: file.buffer });
}

/** Imports paths from a file, and waits for the notice that they were added or refused. */
export async function importPaths(page: Page, file: TestFile): Promise<void> {
  await goTo(page, 'Path');
  await chooseFile(page, 'Import a file', file);
  // Reading the file takes a moment: until the notice appears nothing has changed.
  const reported = page
    .getByRole('status')
    .or(page.getByRole('alert'))
    .filter({ hasText: `${file.name}:` });
  // Of several paths, or timed ones, it is asked which are meant: all that are offered.
  const add = page.getByRole('button', { name: /^Add \d+ path/ });
  await expect(reported.or(add).last()).toBeVisible();
  if (await add.isVisible()) await add.click();
  await expect(reported.last()).toBeVisible();
}

export async function uploadModel(page: Page, file: TestFile): Promise<void> {
  await goTo(page, 'Attach');
  await chooseFile(page, 'Upload a model', file);
}

/** Attaches the selected rider to a path by its name in the list. */
export async function attachTo(page: Page, pathName: string): Promise<void> {
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: pathName }).click();
  await page.getByRole('button', { name: 'Attach here' }).click();
}

/** Waits until the server has everything. */
export async function settled(page: Page): Promise<void> {
  // An edit is shown with the next picture; until then the previous state is there.
  await page.evaluate(
    () => new Promise((shown) => requestAnimationFrame(() => requestAnimationFrame(shown))),
  );
  await expect(page.getByRole('status', { name: 'Save state' })).toHaveText('saved');
}

/** Opens an operation on the selected path. */
export async function operate(page: Page, name: string): Promise<void> {
  await page
    .getByRole('region', { name: 'Change the path' })
    .getByRole('button', { name, exact: true })
    .click();
  await expect(page.getByRole('button', { name: 'Accept (Enter)' })).toBeVisible();
}

/** Accepts the operation that is set up, as soon as its result is shown. */
export async function accept(page: Page): Promise<void> {
  const button = page.getByRole('button', { name: 'Accept (Enter)' });
  await expect(button).toBeEnabled();
  await button.click();
  await expect(button).toBeHidden();
}

/** Types into a field and takes the number up. */
export async function fill(page: Pick<Page, 'getByRole'>, label: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** The document as the server has it. */
export async function storedShot(
  request: APIRequestContext,
  id: string,
): Promise<{ revision: number; document: Shot }> {
  const response = await request.get(`/api/shots/${id}`);
  expect(response.status()).toBe(200);
  return (await response.json()) as { revision: number; document: Shot };
}

/** A number on the board, without its unit. */
export async function boardNumber(page: Page, name: string): Promise<number> {
  const text = await page.getByRole('region', { name: 'Board' }).getByLabel(name).textContent();
  return Number((text ?? '').replace('−', '-').replace(/[^\d.-]/g, ''));
}

/** Goes to a frame by typing it. */
export async function goToFrame(page: Page, frame: number): Promise<void> {
  await page
    .getByLabel('Clock')
    .getByRole('button', { name: /^frame/ })
    .click();
  await fill(page, 'Go to frame', String(frame));
}

/** Makes a shot from parts of a document and opens its desk at a step. */
export async function openShotOf(
  page: Page,
  request: APIRequestContext,
  parts: object,
  station: string,
): Promise<string> {
  const document = { format: 'fleet-rail-shot', version: 2, ...parts };
  const response = await request.post('/api/shots', { data: { document } });
  expect(response.status()).toBe(201);
  const { id } = (await response.json()) as { id: string };
  await page.goto(`/shots/${id}/${station.toLowerCase().replace(' ', '-')}`);
  await expect(page.getByRole('heading', { name: station, level: 2 })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
  return id;
}

/** Chooses one of the words behind a button. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`${label}$`), expanded: false }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}
