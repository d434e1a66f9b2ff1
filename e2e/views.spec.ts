import type { Page } from '@playwright/test';
import {
  attachTo,
  fill,
  goToFrame,
  importPaths,
  openNewShot,
  openShotOf,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, straightLane } from './support/files.js';
import { expect, test } from './support/test.js';

test.use({ stage: 'full' });

/** A box that goes 11 m along +X in 12 frames. */
const shot = {
  name: 'Looked at',
  range: { first: 1, last: 12 },
  paths: [
    {
      id: 'p',
      name: 'P',
      basis: 'polyline',
      points: [{ position: [0, 0, 0] }, { position: [40, 0, 0] }],
    },
  ],
  riders: [
    {
      id: 'r',
      name: 'Box',
      badge: 'B1',
      attachment: {
        path: 'p',
        pace: {
          keys: [
            { frame: 1, value: 0, ease: 'linear' },
            { frame: 12, value: 11, ease: 'linear' },
          ],
        },
      },
    },
  ],
};

async function act(page: Page, item: string): Promise<void> {
  await page.getByRole('button', { name: 'Kept views and following' }).click();
  await page.getByRole('menuitem', { name: item, exact: true }).click();
}

async function keepAs(page: Page, name: string): Promise<void> {
  await act(page, 'Keep this view…');
  await fill(page, 'Name of the view', name);
}

interface View {
  readonly name: string;
  readonly from: readonly number[];
  readonly at: readonly number[];
}

test('views are kept by name with the shot, taken again as they were, and undone', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, shot, 'Attach');
  const views = async () => {
    await settled(page);
    return ((await storedShot(request, id)).document as unknown as { views: View[] }).views;
  };
  await page.getByRole('button', { name: 'Zoom to B1' }).click();
  await keepAs(page, 'Close');
  await page.getByRole('button', { name: 'Show everything' }).click();
  await keepAs(page, 'All of it');
  await act(page, 'Close');
  await keepAs(page, 'Close again');
  const [close, all, again] = await views();
  expect([close.name, all.name, again.name]).toEqual(['Close', 'All of it', 'Close again']);
  const apart = (a: readonly number[], b: readonly number[]) =>
    Math.hypot(...a.map((value, k) => value - b[k]));
  expect(apart(close.from, all.from)).toBeGreaterThan(5);
  expect(apart(close.from, again.from)).toBeLessThan(1e-6);
  expect(apart(close.at, again.at)).toBeLessThan(1e-6);
  await act(page, 'Delete All of it');
  expect((await views()).map(({ name }) => name)).toEqual(['Close', 'Close again']);
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect(await views()).toHaveLength(3);
});

test('a rider whose model is still on its way is come close to when it has come', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Not yet there');
  await importPaths(page, straightLane);
  let come = () => undefined as void;
  const coming = new Promise<void>((resolve) => (come = resolve));
  await page.route('**/api/models/*/file', async (route) => {
    await coming;
    await route.continue();
  });
  await uploadModel(page, await cartModel());
  await attachTo(page, 'straight');
  await settled(page);
  await page.getByRole('button', { name: 'Zoom to C1' }).click();
  const looksAt = async (name: string) => {
    await keepAs(page, name);
    await settled(page);
    const { document } = await storedShot(request, id);
    return (document as unknown as { views: View[] }).views.find((view) => view.name === name)?.at ?? [];
  };
  // Until then the view shows the whole lane, 48 m from end to end.
  expect((await looksAt('Before'))[2]).toBeCloseTo(24, 6);
  come();
  let looks = 0;
  await expect(async () => {
    // The middle of the cart, a metre high, at the lane's start.
    const [x, y, z] = await looksAt(`Look ${++looks}`);
    expect([x, y, z].map((value) => value.toFixed(3)).join(' ')).toBe('0.000 0.500 0.000');
  }).toPass();
});

test('a view that follows a rider goes as far as it does, from behind, beside and above', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, shot, 'Attach');
  for (const from of ['behind', 'beside', 'above']) {
    await act(page, `Follow from ${from}`);
    for (const frame of [1, 12]) {
      await goToFrame(page, frame);
      await keepAs(page, `${from} ${frame}`);
    }
  }
  await act(page, 'Stop following');
  await goToFrame(page, 1);
  await keepAs(page, 'still');
  await settled(page);
  const { views } = (await storedShot(request, id)).document as unknown as { views: View[] };
  const of = (name: string) => views.find((view) => view.name === name) as View;
  for (const from of ['behind', 'beside', 'above']) {
    const [early, late] = [of(`${from} 1`), of(`${from} 12`)];
    early.from.forEach((value, k) => expect(late.from[k] - value).toBeCloseTo([11, 0, 0][k], 6));
    early.at.forEach((value, k) => expect(late.at[k] - value).toBeCloseTo([11, 0, 0][k], 6));
  }
  // It heads along +X: behind is less of X, its left is −Z, and above is up.
  const off = (name: string) => of(name).from.map((value, k) => value - of(name).at[k]);
  expect(off('behind 1')[0]).toBeLessThan(-1);
  expect(Math.abs(off('behind 1')[2])).toBeLessThan(1e-6);
  expect(off('beside 1')[2]).toBeLessThan(-1);
  expect(off('above 1')[1]).toBeGreaterThan(5 * Math.hypot(off('above 1')[0], off('above 1')[2]));
  expect(of('still').from).toEqual(of('above 12').from);
});

test('the board folds to one line and stands in another corner, on the next visit too; drawing tells its cost', async ({
  page,
  request,
}) => {
  await openShotOf(page, request, shot, 'Attach');
  const board = page.getByRole('region', { name: 'Board' });
  await expect(board.getByLabel('Heading')).toBeVisible();
  const stage = await page.getByLabel('Stage', { exact: true }).boundingBox();
  const middle = async () => {
    const box = await board.boundingBox();
    if (!box || !stage) throw new Error('The board is not shown.');
    return {
      right: box.x + box.width / 2 > stage.x + stage.width / 2,
      low: box.y > stage.y + stage.height / 2,
    };
  };
  expect(await middle()).toEqual({ right: true, low: true });
  await board.getByRole('button', { name: 'Fold the numbers' }).click();
  await board.getByRole('button', { name: 'Move to the next corner' }).click();
  await page.reload();
  await expect(board).toContainText('0.00 m');
  await expect(board.getByLabel('Heading')).toHaveCount(0);
  expect(await middle()).toEqual({ right: true, low: false });
  await board.getByRole('button', { name: 'Unfold the numbers' }).click();
  await expect(board.getByLabel('Heading')).toBeVisible();
  await page.keyboard.press('Shift+D');
  await goToFrame(page, 3);
  await expect(page.getByRole('note', { name: 'Drawing' })).toHaveText(
    /^\d+\.\d ms, [1-9]\d* draws, \d+ triangles$/,
  );
});

test('a still stage is drawn when asked, and is still so on the next visit; a light one draws by itself', async ({
  page,
  request,
}) => {
  await openShotOf(page, request, { ...shot, name: 'Weak machine' }, 'Path');
  const quality = async (from: string, to: string) => {
    await page.getByRole('button', { name: `Stage quality: ${from}` }).click();
    await page.getByRole('menuitemradio', { name: to }).click();
    await page.keyboard.press('Escape');
  };
  const note = page.getByRole('note', { name: 'Still stage' });
  const draw = page.getByRole('button', { name: /^Draw the stage/ });
  await expect(note).toBeHidden();
  await quality('full', 'Still');
  await goToFrame(page, 20);
  await expect(note).toBeVisible();
  await draw.click();
  await expect(note).toBeHidden();
  await goToFrame(page, 30);
  await expect(note).toBeVisible();
  await page.keyboard.press('Shift+S');
  await expect(note).toBeHidden();
  await page.reload();
  await expect(note).toBeVisible();
  await quality('still', 'Light');
  await expect(note).toBeHidden();
  await goToFrame(page, 40);
  await expect(note).toBeHidden();
});
