import type { Page } from '@playwright/test';
import {
  accept,
  attachTo,
  boardNumber,
  chooseFile,
  fill,
  goTo,
  importPaths,
  openNewShot,
  operate,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { cartModel, csvFile, squareLane, straightLane, svgFile } from './support/files.js';
import { clickPlan, dragBy, measurePlan } from './support/plan.js';
import { expect, test } from './support/test.js';

/** The length the desk shows of the selected path. */
async function expectLength(page: Page, metres: number): Promise<void> {
  await expect(page.getByLabel('Facts')).toContainText(`Length${Number(metres.toFixed(3))} m`);
}

const figure = (page: Page, name: string) => page.getByLabel('Result').locator(`dt:text-is("${name}") + dd`);

test('points are inserted by number, lifted, and a lane is laid beside', async ({ page, request }) => {
  const id = await openNewShot(page, 'Lanes');
  await importPaths(page, straightLane);
  await expectLength(page, 48);
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await fill(page, 'Along the path', '12 m');
  await page.getByRole('button', { name: 'Insert there' }).click();
  await expectLength(page, 48);

  await operate(page, 'Lift');
  await fill(page, 'Height', '250 cm');
  await page.getByRole('button', { name: 'Cancel (Esc)' }).click();
  await operate(page, 'Lift');
  await fill(page, 'Height', '2');
  await expect(page.getByText('The chosen point.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await operate(page, 'Lift');
  await fill(page, 'Height', '2');
  await accept(page);

  await operate(page, 'Parallel path');
  await fill(page, 'To the left by', '350 cm');
  await accept(page);
  await expect(page.getByRole('row', { name: 'straight lane' })).toContainText('48 m');
  await settled(page);
  const { paths } = (await storedShot(request, id)).document;
  expect(paths[0].points.map(({ position }) => position)).toEqual([
    [0, 2, 0],
    [0, 2, 12],
    [0, 2, 48],
  ]);
  // Left of +Z is +X.
  for (const { position } of paths[1].points) {
    expect(position[0]).toBeCloseTo(3.5, 9);
    expect(position[1]).toBeCloseTo(2, 9);
  }
});

test('a path is converted exactly, split and joined again', async ({ page, request }) => {
  const id = await openNewShot(page, 'Cut');
  await importPaths(page, straightLane);
  await operate(page, 'Change basis');
  await expect(figure(page, 'Largest deviation')).toHaveText('the same curve');
  await accept(page);
  await expect(page.getByText('Bézier, open, 2 points')).toBeVisible();

  await operate(page, 'Split');
  await fill(page, 'At', '20');
  // A second Enter in the field accepts what is shown.
  await expect(page.getByRole('button', { name: 'Accept (Enter)' })).toBeEnabled();
  await page.keyboard.press('Enter');
  const rows = page.getByRole('grid', { name: 'Paths' });
  await expect(rows.getByRole('row', { name: 'straight', exact: true })).toContainText('20 m');
  await expect(rows.getByRole('row', { name: 'straight 2' })).toContainText('28 m');
  await settled(page);
  const parts = (await storedShot(request, id)).document.paths;
  expect(parts.map((path) => path.points.length)).toEqual([2, 2]);
  parts[1].points[0].position.forEach((value, k) => expect(value).toBeCloseTo([0, 0, 20][k], 9));

  await operate(page, 'Join');
  await accept(page);
  await expectLength(page, 48);
  await settled(page);
  const [joined, ...none] = (await storedShot(request, id)).document.paths;
  expect(none).toEqual([]);
  expect(joined.points).toHaveLength(3);
});

test('what rides a reversed path stays where it is; closing makes a round of it', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Turned');
  await importPaths(page, svgFile('bay.svg', '<path id="bay" d="M0 0 V10 H10 V0"/>'));
  await uploadModel(page, await cartModel());
  await attachTo(page, 'bay');
  await expect.poll(() => boardNumber(page, 'Speed')).toBeCloseTo((30 / 239) * 24, 2);
  await goTo(page, 'Path');
  await operate(page, 'Reverse');
  await accept(page);
  await expect.poll(() => boardNumber(page, 'Distance')).toBe(30);
  expect(await boardNumber(page, 'Heading')).toBe(0);
  await settled(page);
  let { document } = await storedShot(request, id);
  expect(document.paths[0].points[0].position).toEqual([10, 0, 0]);
  expect(document.riders[0].attachment?.pace.keys.map((key) => key.value)).toEqual([1, 0]);
  expect(document.riders[0].attachment?.offset).toMatchObject({ yaw: 180 });

  await operate(page, 'Close');
  await page.getByRole('radio', { name: 'In its own basis' }).click();
  await accept(page);
  await expectLength(page, 40);
  await page.getByRole('grid', { name: 'Points' }).getByRole('row', { name: 'Point 3' }).click();
  await operate(page, 'Begin here');
  await accept(page);
  await settled(page);
  ({ document } = await storedShot(request, id));
  expect(document.paths[0]).toMatchObject({ closed: true });
  expect(document.paths[0].points[0].position).toEqual([0, 0, 10]);
});

test('thinning shows what it would give before it is taken', async ({ page, request }) => {
  const id = await openNewShot(page, 'Dense');
  const rows = Array.from({ length: 241 }, (_, i) => {
    const a = (Math.PI * i) / 240;
    return `${(20 * Math.cos(a)).toFixed(6)},0,${(20 * Math.sin(a)).toFixed(6)}`;
  });
  await importPaths(page, csvFile('half.csv', ['x,y,z', ...rows]));
  await expect(page.getByText('Through points, open, 241 points')).toBeVisible();
  await operate(page, 'Thin out');
  await fill(page, 'Tolerance', '5 cm');
  // The figures of the previous tolerance stay until those of this one are computed.
  const away = async () =>
    Number(((await figure(page, 'Largest deviation').textContent()) ?? '').replace(' mm', ''));
  await expect.poll(away).toBeLessThan(52);
  await expect(figure(page, 'Points')).toHaveText(/^241 → \d+$/);
  const after = Number(/→ (\d+)/.exec((await figure(page, 'Points').textContent()) ?? '')?.[1]);
  expect(after).toBeLessThan(12);
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].points).toHaveLength(241);
  await page.getByRole('slider', { name: 'Tolerance, coarser or finer' }).press('ArrowLeft');
  await expect(page.getByRole('textbox', { name: 'Tolerance' })).not.toHaveValue('0.05 m');
  await fill(page, 'Tolerance', '5 cm');
  await expect(figure(page, 'Points')).toHaveText(`241 → ${after}`);
  await page.keyboard.press('Escape');
  await operate(page, 'Thin out');
  await fill(page, 'Tolerance', '5 cm');
  await expect(figure(page, 'Points')).toHaveText(`241 → ${after}`);
  await accept(page);
  await settled(page);
  const [path] = (await storedShot(request, id)).document.paths;
  expect(path.points).toHaveLength(after);
  const shown = Number(/Length([\d.]+)/.exec((await page.getByLabel('Facts').textContent()) ?? '')?.[1]);
  expect(Math.abs(shown - 20 * Math.PI)).toBeLessThan(0.1);
});

test('straight runs with Shift, several points in a box, handles, and a double click on the curve', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Hands');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await clickPlan(page, map, -8, 0);
  await page.keyboard.down('Shift');
  const crooked = map.at(2, 0.6);
  await page.mouse.move(crooked.x, crooked.y);
  await page.mouse.click(crooked.x, crooked.y);
  await page.keyboard.up('Shift');
  await clickPlan(page, map, 6, 5);
  await page.keyboard.press('Enter');
  await settled(page);
  let [path] = (await storedShot(request, id)).document.paths;
  expect(path.points.map(({ position }) => position)).toEqual([
    [-8, 0, 0],
    [2, 0, 0],
    [6, 0, 5],
  ]);
  expect(path.points[1]).toMatchObject({ handles: 'smooth', in: [expect.closeTo(-10 / 3, 9), 0, 0] });

  await page.getByRole('button', { name: 'Box' }).click();
  await dragBy(page, map.at(-1, -3), map.at(9, 8));
  await expect(page.getByText('2 points chosen.')).toBeVisible();
  await dragBy(page, map.at(2, 0), map.at(2, -3));
  await settled(page);
  [path] = (await storedShot(request, id)).document.paths;
  expect(path.points.map(({ position }) => position)).toEqual([
    [-8, 0, 0],
    [2, 0, -3],
    [6, 0, 2],
  ]);
  await page.keyboard.press('Control+z');

  // A handle is pulled by its end, and the other turns with it.
  await clickPlan(page, map, 2, 0);
  await page.getByRole('radio', { name: 'Symmetric' }).click();
  await settled(page);
  [path] = (await storedShot(request, id)).document.paths;
  const reach = path.points[1].out[0];
  expect(path.points[1].in[0]).toBeCloseTo(-reach, 9);
  await dragBy(page, map.at(2 + reach, 0), map.at(2, 4));
  await settled(page);
  [path] = (await storedShot(request, id)).document.paths;
  const [x, , z] = path.points[1].out;
  expect(Math.abs(x)).toBeLessThan(0.2);
  expect(z).toBeGreaterThan(3.6);
  path.points[1].in.forEach((value, k) => expect(value).toBeCloseTo(-path.points[1].out[k], 9));
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');

  const before = (await storedShot(request, id)).document.paths[0].points.length;
  const onCurve = map.at(-3, 0);
  await page.mouse.dblclick(onCurve.x, onCurve.y);
  await settled(page);
  [path] = (await storedShot(request, id)).document.paths;
  expect(path.points).toHaveLength(before + 1);
  expect(path.points[1].position[0]).toBeCloseTo(-3, 0);
  expect(path.points[1].position[2]).toBeCloseTo(0, 9);
});

test('a path is laid, walked and moved by keyboard alone', async ({ page, request }) => {
  const id = await openNewShot(page, 'Keys only');
  await page.getByRole('button', { name: 'Draw a path' }).press('Enter');
  for (const [x, z] of [
    ['0', '0'],
    ['0', '10'],
    ['5', '10'],
  ]) {
    await fill(page, 'X to add', x);
    await fill(page, 'Z to add', z);
    await page.getByRole('button', { name: 'Add this point' }).press('Enter');
  }
  await page.getByRole('button', { name: 'Finish (Enter)' }).press('Enter');
  const rows = page.getByRole('grid', { name: 'Points' });
  await rows.getByRole('row', { name: 'Point 1' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Alt+ArrowRight');
  await page.keyboard.press('Alt+Shift+ArrowUp');
  await page.keyboard.press('Alt+PageUp');
  await settled(page);
  let [path] = (await storedShot(request, id)).document.paths;
  expect(path.points[2].position).toEqual([5.1, 0.1, 9]);
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Delete');
  await settled(page);
  [path] = (await storedShot(request, id)).document.paths;
  expect(path.points).toHaveLength(2);
  await page.getByRole('button', { name: 'Undo: Delete points' }).press('Enter');
  await rows.getByRole('row', { name: 'Point 2' }).press('Enter');
  await page.getByText('Switched off', { exact: true }).click();
  await expectLength(page, Math.hypot(5.1, 0.1, 9));
});

test('marks are put by number, named, and dragged along the path', async ({ page, request }) => {
  const id = await openNewShot(page, 'Marked');
  await importPaths(page, straightLane);
  await expectLength(page, 48);
  await page.getByRole('button', { name: 'Add a mark' }).click();
  await fill(page, 'Along the path', '31.5');
  await page.getByRole('button', { name: 'Mark there' }).click();
  const marks = page.getByRole('region', { name: 'Marks' });
  await marks.getByRole('textbox', { name: 'Name' }).fill('Gate');
  await expect(page.getByRole('group', { name: 'Stage' }).getByText('Gate', { exact: true })).toBeVisible();
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].marks).toMatchObject([
    { name: 'Gate', distance: 31.5 },
  ]);
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await page.keyboard.press('Escape');
  await dragBy(page, map.at(0, 31.5), map.at(2, 26.5));
  await settled(page);
  const [mark] = (await storedShot(request, id)).document.paths[0].marks;
  // Dragged beside the path it keeps to it; a pixel is about a tenth of a metre here.
  expect(Math.abs(mark.distance - 26.5)).toBeLessThan(0.4);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].marks[0].distance).toBe(31.5);
});

test('waypoints with times bring a path, and a carrier that is there on time', async ({ page, request }) => {
  const id = await openNewShot(page, 'Waypoints');
  await importPaths(page, csvFile('round.csv', ['time,x,y,z', '0,0,0,0', '2,0,0,10', '5,10,0,10']));
  await expect(page.getByRole('radio', { name: 'R1 round' })).toBeVisible();
  await settled(page);
  const { riders } = (await storedShot(request, id)).document;
  expect(riders).toMatchObject([{ kind: 'carrier', name: 'round' }]);
  expect(riders[0].attachment?.pace.keys.map((key) => key.frame)).toEqual([1, 49, 121]);
});

test('a table of 100,000 points is read beside the page, with a bar, and can be cancelled', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Heavy');
  const rows = Array.from({ length: 100_000 }, (_, i) => {
    const a = i / 4_000;
    return `${(50 * Math.cos(a)).toFixed(4)},${(i / 9_000).toFixed(4)},${(50 * Math.sin(a)).toFixed(4)}`;
  });
  const heavy = csvFile('heavy.csv', ['x,y,z', ...rows]);
  // Four times as many to cancel, so that reading lasts until the button is pressed.
  await chooseFile(
    page,
    'Import a file',
    csvFile('heavy.csv', ['x,y,z', ...rows, ...rows, ...rows, ...rows]),
  );
  await page.getByRole('button', { name: 'Cancel reading' }).click();
  await expect(page.getByText('heavy.csv: reading was cancelled, nothing was changed.')).toBeVisible();
  expect((await storedShot(request, id)).document.paths).toEqual([]);

  await importPaths(page, heavy);
  await expect(page.getByText(/heavy\.csv: 1 path added\. "heavy": 100000 points became \d+/)).toBeVisible();
  const shown = page.getByLabel('Facts');
  await expect(shown).toContainText('Length');
  const length = Number(/Length([\d.]+)/.exec((await shown.textContent()) ?? '')?.[1]);
  expect(Math.abs(length - Math.hypot(50, 4 / 9) * (99_999 / 4_000))).toBeLessThan(0.1);
});

test('files that hold no path are refused with what, where and what was expected, and the desk stays usable', async ({
  page,
}) => {
  await openNewShot(page, 'Bad files');
  const cases: [string, string, RegExp][] = [
    ['empty.svg', '<svg xmlns="http://www.w3.org/2000/svg"></svg>', /there is no path in this SVG/],
    ['faces.obj', 'v 0 0 0\nv 1 0 0\nv 0 0 1\nf 1 2 3', /there are no lines \(l\) in this OBJ/],
    ['words.csv', 'x,y,z\n0,0,0\n1,two,3', /line 3, column 2: found "two"; expected a number/],
    ['nan.csv', '0,0,0\n1,NaN,3', /line 2, column 2: found "NaN"/],
    ['twice.csv', '1,1,1\n1,1,1', /all its points in one place; expected two points that stand apart/],
    ['one.csv', '1,1,1', /1 of the 2 points it needs/],
    ['notes.txt', 'hello', /is of a kind that holds no path/],
    ['broken.glb', 'glTF and then nothing at all', /broken|cannot|neither|cut off|expected/],
  ];
  for (const [name, text, message] of cases) {
    await importPaths(page, { name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    await expect(page.getByRole('alert').filter({ hasText: `${name}:` })).toContainText(message);
    await page.getByRole('button', { name: 'Close message' }).last().click();
  }
  await importPaths(page, squareLane);
  await expectLength(page, 40);
  // All points off, and on again.
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByText('Switched off', { exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('4 of its 4 points are switched off');
  await page.getByText('Switched off', { exact: true }).click();
  await expectLength(page, 40);
});

test('ready shapes are live until they are right, and one undo', async ({ page, request }) => {
  const id = await openNewShot(page, 'Shapes');
  await page.getByRole('button', { name: 'Ready shape' }).click();
  await page.getByRole('button', { name: 'Circle', exact: true }).click();
  await fill(page, 'Radius', '5');
  await fill(page, 'Middle Y', '2');
  await page.getByRole('button', { name: 'Done' }).click();
  await expectLength(page, 10 * Math.PI);
  await settled(page);
  const [circle] = (await storedShot(request, id)).document.paths;
  expect(circle).toMatchObject({ name: 'Circle', closed: true, basis: 'bezier' });
  for (const { position } of circle.points) expect(Math.hypot(position[0], position[2])).toBeCloseTo(5, 9);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toEqual([]);
  // A single change has to leave it there as well.
  await page.getByRole('button', { name: 'Ready shape', exact: true }).click();
  await page.getByRole('button', { name: 'Line', exact: true }).click();
  await page.getByLabel('Length', { exact: true }).fill('40');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Done' }).click();
  await expectLength(page, 40);
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toHaveLength(1);
});

test('an edge of a model becomes a path, after it was shown', async ({ page, request }) => {
  const id = await openNewShot(page, 'Edges');
  await uploadModel(page, await cartModel());
  await goTo(page, 'Path');
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Model edges' }).click();
  await expect(page.getByText('Click an edge of a model.')).toBeVisible();
  // The cart's roof, seen from above: one metre wide, two long, its right edge at x = 0.5.
  await expect(async () => {
    await clickPlan(page, map, 0.45, 0.1);
    await expect(page.getByText(/^One edge\./)).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await clickPlan(page, map, -0.45, 0.1);
  await expect(page.getByText('Two edges: the path runs midway between them.')).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(page.getByText(/^One edge\./)).toBeVisible();
  await clickPlan(page, map, -0.45, 0.1);
  await page.getByRole('button', { name: 'Line between (Enter)' }).click();
  await expectLength(page, 2);
  await settled(page);
  const [path] = (await storedShot(request, id)).document.paths;
  for (const { position } of path.points) {
    expect(position[0]).toBeCloseTo(0, 6);
    expect(position[1]).toBeCloseTo(1, 6);
  }
});

test('going to another step keeps what was drawn, and takes no pick mode or preview along', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Steps between');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  await clickPlan(page, map, 0, 0);
  await clickPlan(page, map, 0, 8);
  await goTo(page, 'Attach');
  await settled(page);
  const drawn = (await storedShot(request, id)).document.paths;
  expect(drawn.map((path) => path.points.length)).toEqual([2]);
  await goTo(page, 'Path');
  await operate(page, 'Lift');
  await goTo(page, 'Pace');
  await page.keyboard.press('Enter');
  await goTo(page, 'Path');
  await expect(page.getByRole('button', { name: 'Accept (Enter)' })).toBeHidden();
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await goTo(page, 'Check');
  await expect(page.getByText('Click the path where the new point goes.')).toBeHidden();
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toEqual(drawn);
});
