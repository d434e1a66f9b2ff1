import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { startServer } from './own-server.js';

export { expect } from '@playwright/test';

/** What a worker's tests have in common. */
interface Shared {
  /** Where the worker's own server is. */
  url: string;
  /**
   * One page after another's test: what the browser has read and compiled once it keeps, which is most of what it takes to
   * open the desk.
   */
  lent: { context: BrowserContext; page: Page };
}

/** Leaves what a test did, with nothing of it kept in the browser. */
async function leave(context: BrowserContext, page: Page): Promise<void> {
  await context.unrouteAll({ behavior: 'ignoreErrors' });
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  for (const other of context.pages()) if (other !== page) await other.close();
  await page.goto('/favicon.svg');
  await page.mouse.move(0, 0);
  await page.evaluate(() => {
    localStorage.clear();
    sessionStorage.clear();
  });
  await context.clearCookies();
}

/** Tests on a real server with a database of its own, made anew for each worker. */
export const test = base.extend<{ freshPage: Page }, Shared>({
  url: [
    // eslint-disable-next-line no-empty-pattern -- where fixtures are asked for
    async ({}, use) => {
      const data = mkdtempSync(join(tmpdir(), 'fleet-rail-e2e-'));
      const server = await startServer(data);
      await use(server.url);
      await server.kill();
      rmSync(data, { recursive: true });
    },
    { scope: 'worker' },
  ],
  lent: [
    async ({ browser, url }, use, { project }) => {
      const { viewport, actionTimeout = 0 } = project.use;
      const context = await browser.newContext({ baseURL: url, viewport });
      context.setDefaultTimeout(actionTimeout);
      await use({ context, page: await context.newPage() });
      await context.close();
    },
    { scope: 'worker' },
  ],
  baseURL: ({ url }, use) => use(url),
  context: async ({ lent }, use) => {
    await use(lent.context);
    await leave(lent.context, lent.page);
  },
  // It is asked for by way of the context, which is left when the test is over.
  page: async ({ context, lent }, use) => {
    void context;
    await use(lent.page);
  },
  /** Of a context of its own: for what is to run before any script of a page. */
  freshPage: async ({ browser }, use) => {
    const context = await browser.newContext();
    await use(await context.newPage());
    await context.close();
  },
});
