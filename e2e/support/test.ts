import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { startServer } from './own-server.js';

export { expect } from '@playwright/test';

/** Fixtures that the tests of a worker share. */
interface Shared {
  /** Address of its own server. */
  readonly url: string;
  /**
   * One page for all tests of a worker: the browser keeps code that it has read and compiled, which is most of the
   * time to open the desk.
   */
  readonly context: BrowserContext;
}

/** Page of the server that runs nothing. */
const BARE = '/favicon.svg';

/** Leaves what a test did, with nothing of it kept in the browser. */
async function leave(context: BrowserContext): Promise<void> {
  const [page, ...others] = context.pages();
  await context.unrouteAll({ behavior: 'ignoreErrors' });
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  for (const other of others) await other.close();
  await page.goto(BARE);
  await page.mouse.move(0, 0);
  await page.evaluate(() => {
    localStorage.clear();
    sessionStorage.clear();
  });
  await context.clearCookies();
}

/** Tests on a real server with its own database, new for each worker. */
export const test = base.extend<{ freshPage: Page; stage: 'full' | 'light' | 'still' }, { shared: Shared }>({
  /** Stage quality: drawing is most of the work of a browser without a graphics card, and few tests look at it. */
  stage: ['still', { option: true }],
  shared: [
    async ({ browser }, use, { project }) => {
      const data = mkdtempSync(join(tmpdir(), 'fleet-rail-e2e-'));
      const server = await startServer(data);
      const { viewport, actionTimeout = 0 } = project.use;
      const context = await browser.newContext({ baseURL: server.url, viewport });
      context.setDefaultTimeout(actionTimeout);
      await (await context.newPage()).goto(BARE);
      await use({ url: server.url, context });
      await context.close();
      await server.kill();
      rmSync(data, { recursive: true });
    },
    { scope: 'worker' },
  ],
  baseURL: ({ shared }, use) => use(shared.url),
  context: async ({ shared: { context }, stage }, use) => {
    await context
      .pages()[0]
      .evaluate((quality) => localStorage.setItem('fleet-rail.stage-quality', quality), stage);
    await use(context);
    await leave(context);
  },
  page: ({ context }, use) => use(context.pages()[0]),
  /** A context of its own, for scripts that must run before those of a page. */
  freshPage: async ({ browser }, use) => {
    const context = await browser.newContext();
    await use(await context.newPage());
    await context.close();
  },
});
