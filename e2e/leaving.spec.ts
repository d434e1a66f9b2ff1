import type { CDPSession, Page } from '@playwright/test';
import { circle, once, range } from './support/courses.js';
import { openShotOf } from './support/desk.js';
import { expect, test } from './support/test.js';

/** Nodes and listeners that the page holds once all is collected that nothing holds. */
async function held(session: CDPSession): Promise<{ nodes: number; listeners: number }> {
  await session.send('HeapProfiler.collectGarbage');
  const { metrics } = await session.send('Performance.getMetrics');
  const of = (name: string) => metrics.find((metric) => metric.name === name)?.value ?? NaN;
  return { nodes: of('Nodes'), listeners: of('JSEventListeners') };
}

async function visit(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: `Open ${name}`, exact: true }).click();
  await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
  await page.getByRole('link', { name: 'All shots' }).click();
  await expect(page.getByRole('heading', { name: 'Shots', level: 1 })).toBeVisible();
}

test('what a desk holds goes when it is left', async ({ freshPage: page, request }) => {
  // Twenty-five visits, each of two seconds where the stage is drawn without a graphics card.
  const riders = [{ id: 'r', name: 'Runner', badge: 'R1', attachment: { path: 'ring', pace: once } }];
  await openShotOf(page, request, { name: 'Left again', range, paths: [circle], riders }, 'Pace');
  await page.getByRole('link', { name: 'All shots' }).click();
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  // Code that the first desk loads stays loaded and is no leak.
  for (let n = 0; n < 4; n++) await visit(page, 'Left again');
  const before = await held(session);
  for (let n = 0; n < 20; n++) await visit(page, 'Left again');
  const after = await held(session);
  // Less than one a visit: nothing of a desk is kept.
  expect(after.nodes - before.nodes).toBeLessThan(20);
  expect(after.listeners - before.listeners).toBeLessThan(20);
});
