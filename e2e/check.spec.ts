import { cure, demoShot, lookedOver, tags } from './support/checks.js';
import { choose, fill, openShotOf, settled, storedShot } from './support/desk.js';
import { readFileSync } from 'node:fs';
import { expect, test } from './support/test.js';

test('a first try is looked over: filtered, shown, cured matter by matter, and kept so', async ({
  page,
  request,
}) => {
  const id = await openShotOf(page, request, await demoShot(request, 'Orchard, first try'), 'Check');
  await lookedOver(page);
  const stored = async () => {
    await settled(page);
    return (await storedShot(request, id)).document;
  };
  const rider = async (which: string) => (await stored()).riders.find((one) => one.id === which);

  // Findings of one rider, and of one kind.
  await choose(page, 'Rider', 'C5 Drone');
  await expect(tags(page, /C5/).first()).toBeVisible();
  await expect(tags(page, /H1$/)).toHaveCount(0);
  await choose(page, 'Rider', 'All riders');
  await choose(page, 'Kind', 'Too fast for the bend');
  await expect(tags(page, /./).first()).toHaveAccessibleName('Too fast for the bend H1');
  await choose(page, 'Kind', 'All kinds');
  await page.getByText('Warnings', { exact: true }).click();
  await expect(tags(page, /Jolt/)).toHaveCount(0);
  await expect(tags(page, /Under the ground/).first()).toBeVisible();
  await page.getByText('Warnings', { exact: true }).click();

  // Show me selects rider and frame, and marks it in the run diagram.
  const low = tags(page, /Camera under the ground C5/);
  const [, frame] = /f (\d+)/.exec((await low.textContent()) ?? '') ?? [];
  await low.getByRole('button', { name: 'Show me' }).click();
  await expect(page.getByText(`frame ${frame} / 480`)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Board' })).toContainText('Drone');
  await expect(
    page
      .getByRole('group', { name: 'Findings on the line' })
      .locator('title')
      .filter({ hasText: 'Camera under the ground' }),
  ).toHaveCount(1);

  await cure(page, /Camera under the ground C5/, 'Ride higher');
  expect((await rider('drone'))?.attachment?.offset.rise).toBeGreaterThan(0);
  await cure(page, /Tail first K4/, 'Turn it around');
  expect((await rider('kestrel'))?.attachment?.offset.yaw).toBe(0);
  await cure(page, /Wheels stand still T3/, 'Use the found wheels');
  expect((await rider('trailer-2'))?.wheels).toHaveLength(4);
  await cure(page, /Wheel radius T2/, 'Measure the wheels');
  expect((await rider('trailer-1'))?.wheels[0].radius).toBeCloseTo(0.36, 3);
  await cure(page, /Feet slide P11/, 'Lock its feet to the ground');
  expect((await rider('picker'))?.gait?.plant).toBe(true);
  await cure(page, /Idle cue G10/, 'Switch the cue off');
  expect((await stored()).cues.filter(({ off }) => off)).toHaveLength(1);
  await cure(page, /Past the end B13/, 'Reach the end');
  await cure(page, /Overlap B12 B13/, 'Start B12 later');
  await cure(page, /Corner B12/, 'Round the corners');
  expect((await stored()).paths.find((path) => path.id === 'chute')?.basis).toBe('bezier');
  await cure(page, /Too fast for the bend H1/, 'Slow into the bend');
  expect((await rider('hauler'))?.attachment?.pace.mode).toBe('drive');
  await expect(tags(page, /Jolt H1/)).toHaveCount(0);
  await cure(page, /Under the ground K6/, 'Ride higher');
  await expect(page.getByRole('list', { name: 'Fixed' })).toContainText('K6 is under the ground');

  // Each was one step.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(tags(page, /Under the ground K6/).first()).toBeVisible();
});

test('what is let be says why, is not counted, and comes back when it gets worse', async ({
  page,
  request,
}) => {
  const shot = await demoShot(request, 'Orchard, first try');
  const barrel = shot.riders.find(({ id }) => id === 'barrel-13');
  const checks = { ...shot.checks, dismissed: [] };
  const alone = { ...shot, riders: [barrel], cues: [], cuts: [], formations: [], checks };
  const id = await openShotOf(page, request, alone, 'Check');
  await lookedOver(page);
  const count = page.getByRole('link', { name: /^Check/ });
  await expect(count).toContainText('2');
  await tags(page, /Past the end/)
    .getByRole('button', { name: 'Dismiss…' })
    .click();
  await page.getByRole('textbox', { name: 'Reason' }).fill('It falls into the cart');
  await page.keyboard.press('Enter');
  await expect(tags(page, /Past the end/)).toContainText('Dismissed: It falls into the cart');
  await expect(count).toContainText('1');
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.checks.dismissed).toMatchObject([
    {
      kind: 'past-end',
      rider: 'barrel-13',
      reason: 'It falls into the cart',
      figure: expect.closeTo(2.98, 2),
    },
  ]);
  // With this shot's own limit the chute’s corner of 12° is no finding.
  await page.getByRole('button', { name: 'Limits' }).click();
  const corner = page.getByRole('textbox', { name: 'Corner', exact: true });
  await corner.fill('15');
  await corner.press('Enter');
  await expect(tags(page, /Corner/)).toHaveCount(0);
  await expect(page.getByRole('status').filter({ hasText: 'No problems in 1 rider' })).toBeVisible();

  const report = page.waitForEvent('download');
  await page.getByRole('button', { name: 'JSON', exact: true }).click();
  const saved = JSON.parse(readFileSync(await (await report).path(), 'utf8')) as object[];
  expect(saved).toMatchObject([{ kind: 'past-end', dismissed: 'It falls into the cart' }]);

  // Further past the end it is worse than when it was dismissed.
  const further = (await storedShot(request, id)).document;
  const attachment = further.riders[0].attachment;
  const worse = {
    ...further,
    riders: [
      {
        ...further.riders[0],
        attachment: attachment && {
          ...attachment,
          pace: {
            ...attachment.pace,
            keys: attachment.pace.keys.map((key, i) => (i === 1 ? { ...key, value: 30 } : key)),
          },
        },
      },
    ],
  };
  await openShotOf(page, request, worse, 'Check');
  await lookedOver(page);
  await expect(tags(page, /Past the end/)).not.toContainText('Dismissed:');
});

test('the orchard as it is handed over has nothing to be told of', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Orchard loop' }).click();
  await page.getByRole('link', { name: /^Check/ }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'No problems in 11 riders (checked in' }),
  ).toBeVisible();
});

test('a camera is kept above the ground and away from another, and the check’s way out does the same', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const id = await openShotOf(page, request, orchard, 'Facing');
  await page.getByRole('radio', { name: 'C5 Drone' }).click();
  const clearance = page.getByRole('region', { name: 'Clearance' });
  // Over the bridge it comes down to 3.42 m above it, at frame 48.
  await expect(clearance).toContainText('Least 3.4');
  await clearance.getByText('Keep above the ground').click();
  const least = clearance.getByRole('slider', { name: 'Height over the ground, at least' });
  await least.press('PageUp');
  await least.press('PageUp');
  await least.press('PageUp');
  await settled(page);
  await least.press('PageUp');
  await expect(least).toHaveAttribute('aria-valuenow', '5');
  await expect(clearance).toContainText(/Least 5\.\d+ m/);
  await choose(page, 'Keep a distance to', 'H1 Hauler');
  await fill(page, 'Distance to H1', '16 m');
  await expect(clearance).toContainText(/Least 1[67](\.\d+)? m/);
  await settled(page);
  const drone = (await storedShot(request, id)).document.riders.find((rider) => rider.id === 'drone');
  expect(drone?.clearance).toEqual({ floor: 5, from: [{ rider: 'hauler', distance: 16 }], ease: 1 });

  // The bake reports the error that it has: every frame is within the tolerance that was asked for.
  const rows = (await (await request.get(`/api/shots/${id}/files/csv`)).text()).trim().split('\n').slice(1);
  const places = (which: string) =>
    rows
      .map((row) => row.split(','))
      .filter(([, , rider, part]) => rider === which && part === '')
      .map((cells) => cells.slice(4, 7).map(Number));
  const [camera, hauler] = [places('drone'), places('hauler')];
  expect(camera).toHaveLength(1080);
  camera.forEach((place, i) =>
    expect(Math.hypot(...place.map((value, k) => value - hauler[i][k]))).toBeGreaterThan(16 - 1e-6),
  );

  await openShotOf(page, request, await demoShot(request, 'Orchard, first try'), 'Check');
  await lookedOver(page);
  await cure(page, /Camera under the ground C5/, 'Keep clear of the ground');
});
