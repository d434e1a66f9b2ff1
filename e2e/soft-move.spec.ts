import { fill, openNewShot, settled, storedShot } from './support/desk.js';
import { clickPlan, dragBy, measurePlan } from './support/plan.js';
import { expect, test } from './support/test.js';

test('neighbours of a point that is dragged are taken along within a radius, set by the field or the wheel', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Soft');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  const map = await measurePlan(page);
  for (const x of [-8, -4, 0, 4, 8]) await clickPlan(page, map, x, 0);
  await page.keyboard.press('Enter');
  await settled(page);
  const depths = async () => {
    const [path] = (await storedShot(request, id)).document.paths;
    return path.points.map(({ position: [x, , z] }) => [x, z]);
  };
  await fill(page, 'Soft move radius', '8');
  await dragBy(page, map.at(0, 0), map.at(0, -4));
  await settled(page);
  // Half a cosine of 8 m: half of the move at 4 m, none at 8 m.
  expect(await depths()).toEqual(
    [
      [-8, 0],
      [-4, -2],
      [0, -4],
      [4, -2],
      [8, 0],
    ].map((place) => place.map((value) => expect.closeTo(value, 3))),
  );
  await page.keyboard.press('Control+z');

  await dragBy(page, map.at(0, 0), map.at(0, -4), async () => page.mouse.wheel(0, 100));
  await settled(page);
  await expect(page.getByRole('textbox', { name: 'Soft move radius' })).toHaveValue('5.33 m');
  const part = (1 + Math.cos((Math.PI * 4) / 5.33)) / 2;
  expect((await depths()).map(([, z]) => z)).toEqual(
    [0, -4 * part, -4, -4 * part, 0].map((value) => expect.closeTo(value, 3)),
  );
});
