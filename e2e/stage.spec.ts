import { PNG } from 'pngjs';
import { circle, once, range } from './support/courses.js';
import {
  boardNumber,
  goTo,
  importPaths,
  openNewShot,
  openShotOf,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, straightLane } from './support/files.js';
import { clickPlan, dragBy, measurePlan } from './support/plan.js';
import { expect, test } from './support/test.js';

test.use({ stage: 'full' });

test('a Bézier path is drawn by clicking in Plan, taken back, finished, moved and lifted', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Drawing');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  await expect(page.getByText('Click where the path starts.')).toBeVisible();
  const map = await measurePlan(page);
  await clickPlan(page, map, -8, 0);
  await clickPlan(page, map, 0, 4);
  await clickPlan(page, map, 3, -7);
  await expect(page.getByText(/^3 points/)).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(page.getByText(/^2 points/)).toBeVisible();
  await clickPlan(page, map, 8, 0);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /^Path/ })).toContainText(' m');
  await settled(page);
  let { document } = await storedShot(request, id);
  expect(document.paths).toHaveLength(1);
  expect(document.paths[0]).toMatchObject({ basis: 'bezier', closed: false });
  expect(document.paths[0].points.map((point) => point.position)).toEqual([
    [-8, 0, 0],
    [0, 0, 4],
    [8, 0, 0],
  ]);

  await dragBy(page, map.at(0, 4), map.at(0, -2));
  await settled(page);
  ({ document } = await storedShot(request, id));
  expect(document.paths[0].points[1].position).toEqual([0, 0, -2]);

  // The dragged point stays selected; its head is above it in Front, where it is lifted.
  const tag = page.getByRole('group', { name: 'Stage' }).getByText('0 m', { exact: true });
  await expect(tag).toHaveCount(1);
  const inPlan = await tag.boundingBox();
  await page.getByRole('radio', { name: 'Front' }).click();
  // The label moves when the new view is drawn.
  await expect.poll(() => tag.boundingBox()).not.toEqual(inPlan);
  const box = await tag.boundingBox();
  if (box === null) throw new Error('The height is not shown.');
  const head = { x: box.x - 9, y: box.y + 8 - 26 };
  await dragBy(page, head, { x: head.x + 15, y: head.y - 40 });
  await settled(page);
  ({ document } = await storedShot(request, id));
  const [x, height, z] = document.paths[0].points[1].position;
  expect([x, z]).toEqual([0, -2]);
  expect(height).toBeGreaterThan(0.2);
  await expect(page.getByRole('textbox', { name: 'Y (height)' })).toHaveValue(`${height} m`);

  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].points[1].position).toEqual([0, 0, -2]);
});

test('a click on the first point closes the path, and Esc leaves nothing behind', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Closing');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await clickPlan(page, map, -5, -5);
  await page.keyboard.press('Escape');
  await expect(page.getByText(/Keep clicking/)).toBeHidden();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await page.getByRole('button', { name: 'Draw a path' }).click();
  for (const [x, z] of [
    [-5, -5],
    [5, -5],
    [5, 5],
    [-5, 5],
    [-5, -5],
  ])
    await clickPlan(page, map, x, z);
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.paths[0].closed).toBe(true);
  expect(document.paths[0].points).toHaveLength(4);
  // Automatic handles round four corners of a square: longer than the inner circle, shorter than the outer.
  const text = (await page.getByRole('row', { name: /^Path/ }).textContent()) ?? '';
  const length = Number(/([\d.]+) m/.exec(text.replace(/^Path/, ''))?.[1]);
  expect(length).toBeGreaterThan(10 * Math.PI);
  expect(length).toBeLessThan(2 * Math.PI * 5 * Math.SQRT2);
});

test('a path is picked on the stage, the landing is shown first, and Esc lets go', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Picking');
  await importPaths(page, straightLane);
  // The view is fitted to the path once that is evaluated.
  await expect(page.getByRole('row', { name: 'straight' })).toContainText('48 m');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await page.keyboard.press('Escape');
  await uploadModel(page, await cartModel());
  await expect(page.getByRole('radio', { name: 'C1 Cart' })).toBeVisible();

  const pick = page.getByRole('button', { name: 'Pick a path on the stage' });
  await pick.click();
  await expect(page.getByText('Click a path for C1 Cart to ride.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Click a path for C1 Cart to ride.')).toBeHidden();
  await pick.click();
  await clickPlan(page, map, 12, 12);
  await expect(page.getByText('Click a path for C1 Cart to ride.')).toBeVisible();
  await clickPlan(page, map, 0, 20);
  await expect(page.getByText(/The pale figures show where C1 lands on straight/)).toBeVisible();
  await expect(page.getByText('Click a path for C1 Cart to ride.')).toBeHidden();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment).toBeNull();
  await page.getByRole('button', { name: 'Attach here' }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.path).toBe('straight');
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('straight');
});

test('a key dragged in the run diagram changes place and speed, and is one undo', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Diagram');
  await importPaths(page, straightLane);
  await uploadModel(page, await cartModel());
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: 'straight' }).click();
  await page.getByRole('button', { name: 'Attach here' }).click();
  await settled(page);
  // The diagram has its scale once the ride is evaluated.
  await expect.poll(() => boardNumber(page, 'Speed')).toBeGreaterThan(0);
  const key = page.getByRole('button', { name: /^Key at frame 240/ });
  const box = await key.boundingBox();
  if (box === null) throw new Error('The key is not shown.');
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await dragBy(page, middle, { x: middle.x - 200, y: middle.y + 30 });
  await settled(page);
  const dragged = (await storedShot(request, id)).document.riders[0].attachment?.pace.keys[1];
  expect(dragged?.frame).toBeLessThan(220);
  expect(dragged?.value).toBeLessThan(0.9);
  const { frame, value } = dragged as { frame: number; value: number };
  // The board shows two decimals of what the dragged key makes of the speed.
  await expect.poll(() => boardNumber(page, 'Speed')).toBeCloseTo(((48 * value) / (frame - 1)) * 24, 1);

  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.pace.keys[1]).toMatchObject({
    frame: 240,
    value: 1,
  });

  await page.getByRole('button', { name: /^Key at frame 240/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowDown');
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.pace.keys[1]).toMatchObject({
    frame: 239,
    value: 0.99,
  });
});

test('a whole ride is made by keyboard alone', async ({ page, request }) => {
  const id = await openNewShot(page, 'By keys');
  await importPaths(page, straightLane);
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'Attach', level: 2 })).toBeVisible();
  const models = page.getByRole('grid', { name: 'Models' });
  await models.getByRole('row', { name: 'Barrel' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name: 'B1 Barrel' })).toBeVisible();
  await page.getByRole('grid', { name: 'Paths to ride' }).getByRole('row', { name: 'straight' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Attach here' })).toBeFocused();
  await page.keyboard.press('Enter');
  await goTo(page, 'Pace');
  await page.getByRole('textbox', { name: 'Frame', exact: true }).nth(1).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await settled(page);
  expect((await storedShot(request, id)).document.riders[0].attachment?.pace.keys[1].frame).toBe(230);
});

for (const late of [false, true])
  test(`a desk is drawn piece by piece${late ? ', its panel coming late' : ''}, and what is pressed waits for no more than one`, async ({
    freshPage: page,
    request,
  }) => {
    await page.addInitScript(() => {
      const names = ['All shots', 'Paths', 'Run diagram', 'Stage', 'Points', 'Height over ground'];
      const seen = { task: 0, drawnIn: {} as Record<string, number> };
      Object.assign(window, { seen });
      // A task that draws begins with a message to a port: each is counted as it begins.
      const { get, set } = Object.getOwnPropertyDescriptor(MessagePort.prototype, 'onmessage')!;
      Object.defineProperty(MessagePort.prototype, 'onmessage', {
        configurable: true,
        get,
        set(this: MessagePort, heard: MessagePort['onmessage']) {
          const counted = (event: MessageEvent): void => {
            seen.task++;
            heard?.call(this, event);
          };
          set!.call(this, heard && counted);
        },
      });
      new MutationObserver(() => {
        for (const name of names)
          if (!(name in seen.drawnIn) && document.querySelector(`[aria-label="${name}"]`))
            seen.drawnIn[name] = seen.task;
      }).observe(document, { childList: true, subtree: true });
    });
    const riders = [{ id: 'r', name: 'Racer', badge: 'R1', attachment: { path: 'ring', pace: once } }];
    if (late)
      await page.route(/path-station-.*\.js$/, async (route) => {
        await page.getByLabel('Stage', { exact: true }).waitFor();
        await route.continue();
      });
    await openShotOf(page, request, { name: 'Pieces', range, paths: [circle], riders }, 'Path');
    await expect(page.getByRole('region', { name: 'Height over ground' })).toBeVisible();
    const drawnIn = await page.evaluate(
      () => (window as unknown as { seen: { drawnIn: Record<string, number> } }).seen.drawnIn,
    );
    expect(Object.keys(drawnIn)).toHaveLength(6);
    expect(new Set(Object.values(drawnIn)).size).toBe(6);
  });

test('a shot is asked for once, before the code that shows it has come', async ({
  freshPage: page,
  request,
}) => {
  const asked: string[] = [];
  page.on('request', (sent) => asked.push(`${sent.method()} ${new URL(sent.url()).pathname}`));
  const riders = [{ id: 'r', name: 'Racer', badge: 'R1', attachment: { path: 'ring', pace: once } }];
  const id = await openShotOf(page, request, { name: 'Ahead', range, paths: [circle], riders }, 'Path');
  const document = `GET /api/shots/${id}`;
  expect(asked.filter((one) => one === document)).toHaveLength(1);
  expect(asked.indexOf(document)).toBeLessThan(asked.findIndex((one) => one.startsWith('GET /assets/desk-')));
  // Opened again from the list it is asked for anew.
  await page.getByRole('link', { name: 'All shots' }).click();
  await page.getByRole('link', { name: 'Ahead' }).first().click();
  await expect(page.getByRole('region', { name: 'Board' })).toBeVisible();
  expect(asked.filter((one) => one === document)).toHaveLength(2);
});

test('the stage draws when something changed, and only then', async ({ freshPage: page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { draws: number };
    counted.draws = 0;
    for (const name of ['drawElements', 'drawArrays'] as const) {
      const original = WebGL2RenderingContext.prototype[name] as (...args: unknown[]) => void;
      Object.defineProperty(WebGL2RenderingContext.prototype, name, {
        value(...args: unknown[]) {
          counted.draws++;
          return original.apply(this, args);
        },
      });
    }
  });
  await openNewShot(page, 'Idle');
  await importPaths(page, straightLane);
  await settled(page);
  const draws = () => page.evaluate(() => (window as unknown as { draws: number }).draws);
  /** Lets the page refresh a number of times without any change. */
  const refresh = (times: number) =>
    page.evaluate(async (count) => {
      for (let n = 0; n < count; n++) await new Promise((next) => requestAnimationFrame(next));
    }, times);
  // Drawing under way is finished, including what is drawn at rest: two looks in a row are equal.
  await expect(async () => {
    const before = await draws();
    await refresh(40);
    expect(await draws()).toBe(before);
  }).toPass();
  const still = await draws();
  expect(still).toBeGreaterThan(0);
  await refresh(40);
  expect(await draws()).toBe(still);
  await page.getByRole('button', { name: 'One frame forward' }).click();
  await refresh(3);
  expect(await draws()).toBeGreaterThan(still);
});

test('without a graphics card a picture is put on the canvas when all of it is drawn', async ({
  freshPage: page,
  request,
}) => {
  await page.addInitScript(() => {
    const counted = { draws: 0, done: 0, shown: [] as { draws: number; done: number }[] };
    Object.assign(window, { counted });
    const fences = new WeakMap<WebGLSync, number>();
    const { prototype } = WebGL2RenderingContext;
    const wrap = (name: string, after: (given: unknown[], answer: unknown) => void) => {
      const original = Reflect.get(prototype, name) as (...given: unknown[]) => unknown;
      Object.defineProperty(prototype, name, {
        value(...given: unknown[]) {
          const answer = original.apply(this, given);
          after(given, answer);
          return answer;
        },
      });
    };
    for (const name of ['drawElements', 'drawArrays', 'drawElementsInstanced', 'drawArraysInstanced'])
      wrap(name, () => counted.draws++);
    wrap('fenceSync', (_, fence) => fences.set(fence as WebGLSync, counted.draws));
    wrap('clientWaitSync', ([fence], answer) => {
      if (answer !== prototype.TIMEOUT_EXPIRED) counted.done = fences.get(fence as WebGLSync) ?? 0;
    });
    wrap('blitFramebuffer', ([, , width, height, , , wide, high]) => {
      // A canvas that has another size by now has the last one stretched, and the next comes.
      if (width === wide && height === high) counted.shown.push({ draws: counted.draws, done: counted.done });
    });
  });
  const riders = [{ id: 'r', name: 'Racer', badge: 'R1', attachment: { path: 'ring', pace: once } }];
  await openShotOf(page, request, { name: 'Held', range, paths: [circle], riders }, 'Path');
  const shown = () =>
    page.evaluate(
      () => (window as unknown as { counted: { shown: { draws: number; done: number }[] } }).counted.shown,
    );
  await expect.poll(async () => (await shown()).length).toBeGreaterThan(1);
  const before = (await shown()).length;
  for (const button of ['One frame forward', 'One frame forward', 'Show everything'])
    await page.getByRole('button', { name: button }).click();
  await expect.poll(async () => (await shown()).length).toBeGreaterThan(before);
  for (const { draws, done } of await shown()) {
    expect(draws).toBeGreaterThan(0);
    expect(done).toBe(draws);
  }
  // A resized canvas shows the last picture until there is a new one.
  await page.evaluate(() => {
    const canvas = document.querySelector('canvas') as HTMLCanvasElement;
    const seen: { width: number; opaque: boolean }[] = [];
    Object.assign(window, { seen });
    const small = new OffscreenCanvas(1, 1).getContext('2d') as OffscreenCanvasRenderingContext2D;
    new ResizeObserver(() => {
      small.clearRect(0, 0, 1, 1);
      small.drawImage(canvas, 0, 0, 1, 1);
      seen.push({ width: canvas.width, opaque: small.getImageData(0, 0, 1, 1).data[3] === 255 });
    }).observe(canvas.parentElement as HTMLElement);
  });
  const seen = () =>
    page.evaluate(() => (window as unknown as { seen: { width: number; opaque: boolean }[] }).seen);
  await expect.poll(async () => (await seen()).length).toBe(1);
  const [{ width }] = await seen();
  for (const narrower of [100, 200]) {
    await page.setViewportSize({ width: 1280 - narrower, height: 800 });
    await expect.poll(async () => (await seen()).at(-1)?.width).toBe(width - narrower);
    expect((await seen()).at(-1)).toEqual({ width: width - narrower, opaque: true });
  }
});

test('a stage whose graphics were lost is drawn again when they are back', async ({
  freshPage: page,
  request,
}) => {
  const riders = [{ id: 'r', name: 'Racer', badge: 'R1', attachment: { path: 'ring', pace: once } }];
  await openShotOf(page, request, { name: 'Lost', range, paths: [circle], riders }, 'Attach');
  const picture = async () => PNG.sync.read(await page.locator('canvas').first().screenshot()).data;
  let before = await picture();
  /** Share of the picture that changed. */
  const changed = async () => {
    const now = await picture();
    let count = 0;
    for (let i = 0; i < now.length; i += 4)
      if ([0, 1, 2].some((k) => Math.abs(now[i + k] - before[i + k]) > 24)) count++;
    return (4 * count) / now.length;
  };
  // Until all of it is drawn.
  await expect(async () => {
    before = await picture();
    expect(new Set(before).size).toBeGreaterThan(100);
    expect(await changed()).toBe(0);
  }).toPass();
  const lose = (back: boolean) =>
    page.evaluate((isBack) => {
      const canvas = document.querySelector('canvas') as HTMLCanvasElement & { loss?: WEBGL_lose_context };
      const context = canvas.getContext('webgl2') as WebGL2RenderingContext;
      canvas.loss ??= context.getExtension('WEBGL_lose_context') ?? undefined;
      if (isBack) canvas.loss?.restoreContext();
      else canvas.loss?.loseContext();
      return context.isContextLost();
    }, back);
  expect(await lose(false)).toBe(true);
  await expect.poll(changed).toBeGreaterThan(0.3);
  await lose(true);
  // Drawing at rest may have been added.
  await expect.poll(changed).toBeLessThan(0.1);
});

test('where nothing draws the stage says so, and paths are still made', async ({
  freshPage: page,
  request,
}) => {
  await page.addInitScript(() => {
    const original = HTMLCanvasElement.prototype.getContext as (...args: unknown[]) => unknown;
    Object.defineProperty(HTMLCanvasElement.prototype, 'getContext', {
      value(...args: unknown[]) {
        return String(args[0]).startsWith('webgl') ? null : original.apply(this, args);
      },
    });
  });
  const id = await openNewShot(page, 'Unseen');
  await expect(page.getByRole('alert').filter({ hasText: 'The stage stopped' })).toBeVisible();
  await importPaths(page, straightLane);
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toHaveLength(1);
});
