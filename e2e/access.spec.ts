import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { goTo, operate } from './support/desk.js';
import { expect, test } from './support/test.js';

const WCAG = { type: 'tag' as const, values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] };
/** By night only colours are others than by day. */
const COLORS = { type: 'rule' as const, values: ['color-contrast', 'link-in-text-block'] };

/** Every fault the WCAG A and AA rules find, each with its place. */
async function faults(page: Page, mode: 'day' | 'night'): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    // The page has no frames, whose findings another page would have to put together.
    .setLegacyMode(true)
    .options({ runOnly: mode === 'day' ? WCAG : COLORS, resultTypes: ['violations'] })
    .analyze();
  return violations.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.target.join(' ')}: ${node.failureSummary}`),
  );
}

for (const mode of ['day', 'night'] as const) {
  test(`all pages keep to the rules of access by ${mode}`, async ({ freshPage: page }) => {
    await page.addInitScript((stored) => localStorage.setItem('fleet-rail.theme', stored), mode);
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Open Orchard loop' })).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await page.getByRole('link', { name: 'Open Orchard loop' }).click();
    await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
    for (const station of ['Path', 'Attach', 'Facing', 'Contact', 'Pace', 'Check', 'Hand over']) {
      await goTo(page, station);
      expect(await faults(page, mode)).toEqual([]);
    }
    await page.getByRole('button', { name: 'Make the picture', exact: true }).click();
    await expect(
      page.getByRole('list', { name: 'Finished pictures' }).getByRole('img').first(),
    ).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await goTo(page, 'Facing');
    await page.getByRole('radio', { name: 'C5 Drone' }).click();
    await page.getByRole('radio', { name: 'Through C5' }).click();
    await expect(page.getByRole('img', { name: 'Picture of C5 Drone' })).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await goTo(page, 'Attach');
    await page.getByRole('radio', { name: 'Free' }).click();
    await page.getByRole('button', { name: 'Formation', exact: true }).click();
    await page.getByRole('button', { name: 'Form up copies of C5' }).click();
    await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: 'Row walk' }).click();
    await page.getByText('Keep its pace').click();
    await expect(page.getByRole('radio', { name: 'Other end' })).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await page.keyboard.press('Escape');
    await goTo(page, 'Path');
    await operate(page, 'Thin out');
    await expect(page.getByLabel('Result')).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await page.getByRole('button', { name: 'Cancel (Esc)' }).click();
    await page.getByRole('grid', { name: 'Points' }).getByRole('row').first().click();
    await page.getByRole('button', { name: 'Delete Lane' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Draw a path' }).click();
    expect(await faults(page, mode)).toEqual([]);
    await page.goto('/pool');
    await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible();
    expect(await faults(page, mode)).toEqual([]);
  });
}
