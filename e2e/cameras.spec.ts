import type { Shot } from '@fleet-rail/core';
import { fill, goTo, openNewShot, openShotOf, settled, storedShot } from './support/desk.js';
import { clickPlan, measurePlan } from './support/plan.js';
import { expect, test } from './support/test.js';

test('places clicked at even times become a path, and a camera that comes to one of them every second', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Waypoints');
  await page.getByRole('button', { name: 'Draw a path' }).click();
  await page.getByText('Clicks at equal intervals').click();
  await fill(page, 'Interval', '1.5 s');
  const map = await measurePlan(page);
  for (const [x, z] of [
    [-6, 0],
    [0, 4],
    [6, 0],
    [6, -6],
  ])
    await clickPlan(page, map, x, z);
  await expect(page.getByRole('img', { name: 'Height of what is drawn' })).toBeVisible();
  await page.keyboard.press('Enter');
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.paths).toMatchObject([{ basis: 'through', closed: false }]);
  expect(document.riders).toMatchObject([{ kind: 'camera', attachment: { path: document.paths[0].id } }]);
  const keys = document.riders[0].attachment?.pace.keys ?? [];
  expect(keys.map(({ frame }) => frame)).toEqual([1, 37, 73, 109]);
  // Each is at its click: the first two are √52 m apart in a straight line, and no less along the curve.
  expect(keys[0].value).toBe(0);
  expect(keys[1].value).toBeGreaterThan(Math.sqrt(52));
  expect(keys[1].value).toBeLessThan(1.3 * Math.sqrt(52));
  // One step: it goes as a whole.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await settled(page);
  const undone = (await storedShot(request, id)).document;
  expect([undone.paths.length, undone.riders.length]).toEqual([0, 0]);
});

test('cameras are seen side by side and cut by cut; one is held by hand, and holds a size by its lens', async ({
  page,
  request,
}) => {
  const list = (await (await request.get('/api/shots')).json()) as { id: string; name: string }[];
  const demo = list.find(({ name }) => name === 'Orchard, first try') as { id: string };
  const tried: Shot = (await storedShot(request, demo.id)).document;
  const cuts = [
    { frame: 1, camera: 'drone' },
    { frame: 120, camera: 'survey' },
    { frame: 300, camera: 'drone' },
  ];
  const id = await openShotOf(page, request, { ...tried, name: 'Cut by cut', cuts }, 'Facing');
  await page.getByRole('radio', { name: 'C5 Drone' }).click();
  await page.getByRole('button', { name: 'Cameras side by side' }).click();
  const beside = page.getByRole('group', { name: 'Cameras side by side' });
  await expect(beside.getByRole('img')).toHaveCount(2);
  await expect(beside.getByAltText('C14 at frame 1')).toBeVisible();
  await beside.getByRole('button', { name: 'Back to the stage' }).click();
  await page.getByRole('button', { name: 'Pictures of the cuts' }).click();
  const pictures = page.getByRole('group', { name: 'Cuts', exact: true });
  await expect(pictures.getByRole('img')).toHaveCount(3);
  await pictures.getByTitle('Look through C14').click();
  await expect(page.getByText('frame 120 / 480')).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Through C14' })).toBeChecked();
  await page.getByRole('radio', { name: 'Free' }).click();

  await page.getByRole('radio', { name: 'C5 Drone' }).click();
  await page.getByRole('button', { name: 'Handheld' }).click();
  await page.getByText('Handheld shake').click();
  await fill(page, 'Distance', '5 cm');
  await page.getByRole('button', { name: 'Target in the picture' }).click();
  await page.getByRole('button', { name: 'Hold the size by the lens' }).click();
  await settled(page);
  const drone = (await storedShot(request, id)).document.riders.find((rider) => rider.id === 'drone');
  expect(drone?.shake).toEqual({ place: 0.05, turn: 0.5, rate: 1, seed: 1 });
  expect(drone?.camera?.keys.length).toBeGreaterThan(2);
  const track = async (which = 'drone') =>
    (await (await request.get(`/api/shots/${id}/files/csv`)).text())
      .split('\n')
      .map((row) => row.split(','))
      .filter(([, , rider, part]) => rider === which && part === '')
      .map((cells) => cells.slice(4, 7).map(Number));
  const swaying = await track();
  await goTo(page, 'Facing');
  await page.getByText('Handheld shake').click();
  await settled(page);
  const still = await track();
  const strays = swaying.map((place, i) => Math.hypot(...place.map((value, k) => value - still[i][k])));
  expect(Math.max(...strays)).toBeLessThan(0.05 * Math.sqrt(3) + 1e-9);
  expect(Math.max(...strays)).toBeGreaterThan(0.01);

  // Beside the lane: it goes along with the hauler, as far off at every frame as at the first.
  await page.getByRole('button', { name: 'Hold the distance along the path' }).click();
  await expect(page.getByRole('status').filter({ hasText: /C5 stays [\d.]+ m from H1/ })).toBeVisible();
  await settled(page);
  const [held, filmed] = [await track('drone'), await track('hauler')];
  const apart = held.map((place, i) => Math.hypot(...place.map((value, k) => value - filmed[i][k])));
  for (const far of apart) expect(Math.abs(far - apart[0])).toBeLessThan(0.05);
});
