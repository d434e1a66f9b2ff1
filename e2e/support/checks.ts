import type { Shot } from '@fleet-rail/core';
import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { settled, storedShot } from './desk.js';

/** A shot of the demo, as the server keeps it. */
export async function demoShot(request: APIRequestContext, name: string): Promise<Shot> {
  const list = (await (await request.get('/api/shots')).json()) as { id: string; name: string }[];
  const found = list.find((one) => one.name === name);
  if (found === undefined) throw new Error(`The demo has no shot "${name}"`);
  const { document } = await storedShot(request, found.id);
  // The result is another shot.
  return { ...document, name: `A copy of ${name}` };
}

/** The tags of findings by name. */
export const tags = (page: Page, name: RegExp): Locator =>
  page.getByRole('list', { name: 'Findings' }).getByRole('listitem', { name });

/** Waits until the present shot was checked. */
export async function lookedOver(page: Page): Promise<void> {
  await settled(page);
  await expect(page.getByRole('status').filter({ hasText: 'checked in' })).toBeVisible();
}

/** Applies a fix to the first finding of a name, and expects fewer such findings. */
export async function cure(page: Page, name: RegExp, way: string): Promise<void> {
  const tag = tags(page, name).first();
  const before = await tags(page, name).count();
  expect(before).toBeGreaterThan(0);
  await tag.getByRole('button', { name: 'Fixes' }).click();
  const ways = tag.getByRole('group', { name: 'Fixes' });
  await expect(ways).toBeVisible();
  const choice = ways.getByRole('radio', { name: way });
  if ((await choice.count()) > 0) await choice.click();
  await ways.getByRole('button', { name: way, exact: true }).last().click();
  await expect.poll(() => tags(page, name).count()).toBeLessThan(before);
}
