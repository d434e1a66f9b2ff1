import type { Page } from '@playwright/test';
import { fill, goTo, openNewShot, openShotOf, operate, settled } from './support/desk.js';
import { clickPlan, measurePlan } from './support/plan.js';
import { expect, test as shared } from './support/test.js';

const take = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });

/** Waits until the models are on the stage and nothing is being fetched or drawn. */
async function still(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  await settled(page);
  // A stage is drawn when nothing more was for longer than models take to come, and all that was asked for is done: reading a point waits for it.
  await page.waitForFunction((quiet) => {
    const { drawnAt } = window as unknown as { drawnAt?: number };
    const stage = document.querySelector<HTMLCanvasElement>('canvas[aria-label^="Stage view"]');
    const gl = drawnAt === undefined ? null : stage?.getContext('webgl2');
    gl?.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
    return stage === null || (drawnAt !== undefined && performance.now() - drawnAt > quiet);
  }, 4_000);
}

// Pictures are to show what is seen with a graphics card, which smooths edges.
const test = shared.extend({
  page: async ({ freshPage }, use) => {
    await freshPage.addInitScript(() => {
      const { getExtension } = WebGL2RenderingContext.prototype;
      WebGL2RenderingContext.prototype.getExtension = function (this: WebGL2RenderingContext, name: string) {
        return name === 'WEBGL_debug_renderer_info' ? null : (getExtension.call(this, name) as unknown);
      } as typeof getExtension;
      for (const name of ['drawElements', 'drawArrays'] as const) {
        const original = WebGL2RenderingContext.prototype[name] as (...args: unknown[]) => void;
        Object.defineProperty(WebGL2RenderingContext.prototype, name, {
          value(...args: unknown[]) {
            (window as unknown as { drawnAt: number }).drawnAt = performance.now();
            return original.apply(this, args);
          },
        });
      }
      // A worker would tell: without this the page asks by itself.
      Reflect.deleteProperty(window, 'OffscreenCanvas');
    });
    await use(freshPage);
  },
});

async function openDemo(page: Page, name = 'Orchard loop'): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${name}` }).click();
  await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
}

test('desk by day, steps, and by night', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Orchard loop' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  await take(page, 'shots');
  await openDemo(page);
  const diagram = await page.getByRole('group', { name: 'Run diagram' }).boundingBox();
  if (diagram) await page.mouse.click(diagram.x + diagram.width * 0.4, diagram.y + 30);
  await still(page);
  await take(page, 'desk-path');
  await page.getByRole('radio', { name: 'Plan' }).click();
  await operate(page, 'Parallel path');
  await expect(page.getByLabel('Result')).toContainText(' m');
  await still(page);
  await take(page, 'operation');
  await page.getByRole('button', { name: 'Cancel (Esc)' }).click();
  await page.getByRole('radio', { name: 'Free' }).click();
  await goTo(page, 'Facing');
  await page.getByRole('radio', { name: 'K4 Kestrel' }).click();
  await page.getByRole('radio', { name: 'Bank', exact: true }).click();
  await page.getByRole('heading', { name: 'Facing' }).scrollIntoViewIfNeeded();
  await still(page);
  await take(page, 'facing');
  await page.getByRole('radio', { name: 'Line colour' }).click();
  await page.getByRole('radio', { name: 'C5 Drone' }).click();
  await page.getByRole('region', { name: 'Direction' }).scrollIntoViewIfNeeded();
  await page.getByRole('radio', { name: 'Through C5' }).click();
  await still(page);
  await take(page, 'through-camera');
  await page.getByRole('radio', { name: 'Free' }).click();
  await goTo(page, 'Contact');
  await closeTo(page, 'H1 Hauler', 0.345, 'contact-rig');
  await goTo(page, 'Attach');
  await page.getByRole('radio', { name: 'H1 Hauler' }).click();
  await goTo(page, 'Pace');
  await still(page);
  await take(page, 'drive');
  await page.getByRole('radio', { name: 'K4 Kestrel' }).click();
  await page.getByRole('radio', { name: 'All paths' }).click();
  await page.getByRole('radio', { name: 'Seconds' }).click();
  await page.getByRole('heading', { name: 'Pace', level: 2 }).scrollIntoViewIfNeeded();
  await still(page);
  await take(page, 'run-diagram');
  await goTo(page, 'Hand over');
  await page.getByRole('button', { name: 'Night' }).click();
  await still(page);
  await take(page, 'desk-hand-over-night');
});

test('a picker that waits, rides along and gets off', async ({ page }) => {
  await openDemo(page, 'Orchard, a lift');
  await goTo(page, 'Contact');
  await closeTo(page, 'P11 Picker', 0.33, 'contact-walk');
});

/** A rider near by at a part of the run diagram's width. */
async function closeTo(page: Page, rider: string, part: number, name: string): Promise<void> {
  await page.getByRole('radio', { name: rider }).click();
  const box = await page.getByRole('group', { name: 'Run diagram' }).boundingBox();
  if (box) await page.mouse.click(box.x + box.width * part, box.y + 40);
  await still(page);
  await page.getByRole('button', { name: /^Zoom to/ }).click();
  await page.getByRole('heading', { name: 'Contact' }).scrollIntoViewIfNeeded();
  await still(page);
  await take(page, name);
}

test('drawing and attaching', async ({ page }) => {
  await openNewShot(page, 'Delivery run');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  for (const [x, z] of [
    [-15, 4],
    [-8, -4],
    [2, -6],
    [8, 1],
  ]) {
    await clickPlan(page, map, x, z);
  }
  const { x, y } = map.at(14, 5);
  await page.mouse.move(x, y);
  await still(page);
  await take(page, 'drawing');
  await page.mouse.click(x, y);
  await page.keyboard.press('Enter');
  await goTo(page, 'Attach');
  await page.getByRole('grid', { name: 'Models' }).getByRole('row', { name: 'Hauler' }).click();
  await page.getByRole('radio', { name: 'Free' }).click();
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row').first().click();
  await still(page);
  await take(page, 'attaching');
});

test('a formation before it is accepted', async ({ page }) => {
  await openNewShot(page, 'Evening flight');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  for (const [x, z] of [
    [-9, 5],
    [-3, -2],
    [4, -3],
    [9, 3],
  ]) {
    await clickPlan(page, map, x, z);
  }
  await page.keyboard.press('Enter');
  await goTo(page, 'Attach');
  await page.getByRole('grid', { name: 'Models' }).getByRole('row', { name: 'Kestrel' }).click();
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row').first().click();
  await page.getByRole('button', { name: 'Attach here' }).click();
  const diagram = await page.getByRole('group', { name: 'Run diagram' }).boundingBox();
  if (diagram) await page.mouse.click(diagram.x + diagram.width * 0.55, diagram.y + 30);
  await page.getByRole('button', { name: 'Formation', exact: true }).click();
  await page.getByRole('button', { name: 'Form up copies of K1' }).click();
  for (const [field, text] of [
    ['Copies', '8'],
    ['Spacing', '1.6 m'],
    ['Distance', '40 cm'],
  ]) {
    await fill(page, field, text);
  }
  await page.getByRole('radio', { name: 'Free' }).click();
  await page.getByRole('button', { name: 'Add 8 copies' }).scrollIntoViewIfNeeded();
  await still(page);
  await take(page, 'formation');
});

test('what was found of a first try, and ways out of it', async ({ page }) => {
  await openDemo(page, 'Orchard, first try');
  await goTo(page, 'Check');
  await expect(page.getByText('checked in')).toBeVisible();
  await still(page);
  await take(page, 'check');
  for (const [name, picture] of [[/Camera under the ground C5/, 'check-way-out']] as const) {
    const tag = page.getByRole('list', { name: 'Findings' }).getByRole('listitem', { name }).first();
    await tag.getByRole('button', { name: 'Show me' }).click();
    await tag.getByRole('button', { name: 'Fixes' }).click();
    await expect(tag.getByRole('group', { name: 'Fixes' })).toBeVisible();
    await tag.getByRole('button', { name: 'Cancel' }).scrollIntoViewIfNeeded();
    await still(page);
    await take(page, picture);
  }
});

test('what is laid along a path, and what rolls loose', async ({ page }) => {
  await openDemo(page);
  await goTo(page, 'Path');
  const diagram = await page.getByRole('group', { name: 'Run diagram' }).boundingBox();
  if (diagram) await page.mouse.click(diagram.x + diagram.width * 0.17, diagram.y + 30);
  await page.getByRole('button', { name: /^Zoom to/ }).click();
  await page.getByRole('region', { name: 'Dressing' }).scrollIntoViewIfNeeded();
  await still(page);
  await take(page, 'laid');
  await openDemo(page, 'Barrels for ever');
  await goTo(page, 'Contact');
  await page.getByRole('radio', { name: 'L7 Loose barrel 3' }).click();
  const lag = page.getByRole('group', { name: 'Lag behind its path position' });
  await expect(lag).toBeVisible();
  await lag.scrollIntoViewIfNeeded();
  await still(page);
  await take(page, 'forces');
});

test('the pool at work, and an animated picture', async ({ page, context, request }) => {
  test.setTimeout(240_000);
  const shots = (await (await request.get('/api/shots')).json()) as { id: string; name: string }[];
  const demo = shots.find(({ name }) => name === 'Orchard loop');
  const { document } = (await (await request.get(`/api/shots/${demo?.id}`)).json()) as { document: object };
  const parts = { ...document, name: 'Orchard', range: { first: 330, last: 473 }, loop: false };
  await openShotOf(page, request, parts, 'Hand over');
  const section = page.getByRole('region', { name: 'Pictures and video' });
  const pick = async (label: string, option: string) => {
    await section.getByRole('button', { name: new RegExp(`${label}$`) }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  await pick('Format', 'GIF');
  await pick('Camera', 'C5 Drone');
  await pick('Size', 'Another size');
  await fill(page, 'Width', '480');
  await fill(page, 'Height', '270');
  await fill(page, 'Every', '3');
  const gif = page.waitForEvent('download', { timeout: 200_000 });
  await section.getByRole('button', { name: 'Make the film' }).click();
  const pool = await context.newPage();
  await pool.goto('/pool');
  await pool.getByRole('button', { name: 'Render in this window' }).click();
  await expect(pool.getByRole('img', { name: /^(1[5-9]|2\d|3\d) of 48 pictures drawn$/ })).toBeVisible({
    timeout: 120_000,
  });
  await take(pool, 'pool');
  await (await gif).saveAs('docs/screenshots/orchard.gif');
});
