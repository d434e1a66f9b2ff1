import { accept, fill, openShotOf, operate, settled, storedShot } from './support/desk.js';
import { expect, test } from './support/test.js';

test('corners of straight runs become arcs of a radius, shown first; what sits on a rider shows its own speed', async ({
  page,
  request,
}) => {
  const at = (x: number, z: number) => ({ position: [x, 0, z] });
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Corners',
      range: { first: 1, last: 97 },
      paths: [
        {
          id: 'p',
          name: 'Yard',
          basis: 'polyline',
          closed: true,
          points: [at(0, 0), at(0, 20), at(20, 20), at(20, 0)],
        },
      ],
      riders: [
        {
          id: 'c',
          name: 'Cart',
          badge: 'C1',
          attachment: {
            path: 'p',
            pace: {
              keys: [
                { frame: 1, value: 0 },
                { frame: 97, value: 16 },
              ],
            },
          },
        },
        { id: 'b', name: 'Box', badge: 'B2', parent: 'c', rest: { translation: [0, 1, 0] } },
      ],
    },
    'Path',
  );
  await page.getByRole('radio', { name: 'B2 Box' }).click();
  const board = page.getByRole('region', { name: 'Board' });
  await page.keyboard.press('.');
  // 16 m in four seconds, as what it sits on.
  await expect(board.getByLabel('Speed')).toHaveText('4.00 m/s');
  await expect(board.getByLabel('Distance')).toHaveText('0.17 m');
  // Two of several points are moved by two metres each, then all to one height.
  const row = (name: string) => page.getByRole('grid', { name: 'Points' }).getByRole('row', { name });
  await row('Point 2').click();
  await row('Point 3').click({ modifiers: ['Control'] });
  await expect(page.getByRole('textbox', { name: 'X', exact: true })).toHaveValue('several');
  await fill(page, 'Z', '+2 m');
  await fill(page, 'Z', '-2 + 22');
  await fill(page, 'X', '*1');
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].points.map(({ position }) => position)).toEqual([
    [0, 0, 0],
    [0, 0, 20],
    [20, 0, 20],
    [20, 0, 0],
  ]);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect
    .poll(async () => (await storedShot(request, id)).document.paths[0].points[1].position)
    .toEqual([0, 0, 22]);
  await page.getByRole('button', { name: /^Redo/ }).click();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await operate(page, 'Round corners');
  await fill(page, 'Radius', '5');
  await accept(page);
  await settled(page);
  const [path] = (await storedShot(request, id)).document.paths;
  expect(path).toMatchObject({ basis: 'nurbs', degree: 2, closed: true });
  // Four straights and four arcs of two points each, and the one they begin with.
  expect(path.points).toHaveLength(17);
  expect(path.points.map(({ weight }) => weight).filter((weight) => weight < 1)).toEqual(
    [0, 1, 2, 3].map(() => expect.closeTo(Math.SQRT1_2, 12)),
  );
  await expect(page.getByLabel('Facts')).toContainText(`Length${(4 * 10 + 2 * Math.PI * 5).toFixed(3)} m`);
});
