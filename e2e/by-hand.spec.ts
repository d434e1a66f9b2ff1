import type { Shot } from '@fleet-rail/core';
import type { Page } from '@playwright/test';
import { demoShot } from './support/checks.js';
import { choose, fill, goTo, goToFrame, openShotOf, settled, storedShot } from './support/desk.js';
import { clickPlan, dragBy, measurePlan, type PlanMap } from './support/plan.js';
import { expect, test } from './support/test.js';

/** The plan, measured by the places it shows under the pointer while something is put down. */
async function plan(page: Page): Promise<PlanMap> {
  await page.getByRole('radio', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Position by click' }).click();
  const map = await measurePlan(page);
  await page.getByRole('button', { name: 'Cancel (Esc)' }).click();
  return map;
}

const bare = (shot: Shot, name: string, riders: object[]) => ({
  name,
  fps: 24,
  range: { first: 1, last: 97 },
  models: shot.models,
  riders,
  paths: [
    {
      id: 'p',
      name: 'Lane',
      basis: 'polyline',
      points: [{ position: [-8, 0, -6] }, { position: [8, 0, 6] }],
    },
  ],
});

test('a thing is put down by numbers and by the table under it, and by a click', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const crate = { id: 'a', name: 'Barrel', badge: 'A1', model: 'barrel' };
  const other = { id: 'b', name: 'Other', badge: 'B2', model: 'barrel', rest: { translation: [5, 0, -3] } };
  const id = await openShotOf(page, request, bare(orchard, 'Put down', [crate, other]), 'Attach');
  const rest = async (n = 0) => {
    await settled(page);
    return (await storedShot(request, id)).document.riders[n].rest;
  };
  const map = await plan(page);
  await fill(page, 'X', '4/2');
  await fill(page, 'Z', '-1');
  await fill(page, 'Heading', '30');
  await fill(page, 'Scale Y', '*1.5');
  const put = await rest();
  expect(put.translation).toEqual([2, 0, -1]);
  expect(put.scale).toEqual([1, 1.5, 1]);
  expect(put.rotation[1]).toBeCloseTo(Math.sin(Math.PI / 12), 9);
  // The table's top lies about it; beside its middle, so that the head is not taken hold of.
  await dragBy(page, map.at(2.4, -1.3), map.at(-1.1, 1.2));
  const moved = await rest();
  expect(moved.translation[0]).toBeCloseTo(-1.5, 1);
  expect(moved.translation[2]).toBeCloseTo(1.5, 1);
  expect(moved.translation[1]).toBe(0);
  // One step.
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect((await rest()).translation).toEqual([2, 0, -1]);
  // Dropped on another it snaps to that.
  await dragBy(page, map.at(2.4, -1.3), map.at(5, -3));
  expect((await rest()).translation).toEqual([5, 0, -3]);
  await page.getByRole('button', { name: 'Position by click' }).click();
  await clickPlan(page, map, -4, 2);
  const clicked = await rest();
  expect(clicked.translation[0]).toBeCloseTo(-4, 1);
  expect(clicked.translation[2]).toBeCloseTo(2, 1);

  // A new camera has the view's placement, and a rider at rest aims at a passing one.
  await page.getByRole('radio', { name: 'Free' }).click();
  await page.getByRole('button', { name: 'Add a camera' }).click();
  expect((await rest(2)).translation[1]).toBeGreaterThan(1);
  await goTo(page, 'Facing');
  await choose(page, 'Target', 'B2 Other');
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[2].restAim).toMatchObject({ target: { rider: 'b' } });
  const [camera, , target] = document.riders[2].rest.translation.map((value, k) => [5, 0, -3][k] - value);
  const heading = (Math.atan2(camera, target) * 180) / Math.PI;
  const board = await page.getByRole('region', { name: 'Board' }).getByLabel('Heading').textContent();
  const shown = Number((board ?? '').replace(/[^\d.]/g, ''));
  expect(Math.abs(((shown - heading + 540) % 360) - 180)).toBeLessThan(1);
});

test('a thing is moved by hand: keys, stones on its trail, their frames in the diagram; a path and back; frozen and thawed', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const barrel = { id: 'a', name: 'Barrel', badge: 'A1', model: 'barrel', rest: { translation: [-6, 0, 0] } };
  const id = await openShotOf(page, request, bare(orchard, 'By hand', [barrel]), 'Attach');
  const rider = async () => {
    await settled(page);
    return (await storedShot(request, id)).document.riders[0];
  };
  const track = async () => {
    await settled(page);
    return (await (await request.get(`/api/shots/${id}/files/csv`)).text())
      .split('\n')
      .map((row) => row.split(','))
      .filter((cells) => cells[2] === 'a' && cells[3] === '')
      .map((cells) => cells.slice(4, 7).map(Number));
  };
  const furthest = (a: number[][], b: number[][]) =>
    Math.max(...a.map((place, i) => Math.hypot(...place.map((value, k) => value - b[i][k]))));
  const map = await plan(page);
  await page.getByRole('button', { name: 'Key here' }).click();
  await goToFrame(page, 49);
  await fill(page, 'X', '0');
  await fill(page, 'Z', '-4');
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await page.getByRole('grid', { name: 'Keys by hand' }).getByRole('row', { name: 'Frame 49' }).click();
  await expect(page.getByText('frame 49 / 97')).toBeVisible();
  const keys = (await rider()).transformKeys?.keys ?? [];
  expect(keys.map(({ frame, translation }) => [frame, translation])).toEqual([
    [1, [-6, 0, 0]],
    [49, [0, 0, -4]],
  ]);
  // A dot of the trail is taken hold of, and becomes a stone: halfway between two smooth keys, at frame 25.
  await page.getByRole('button', { name: 'To the first frame' }).click();
  await dragBy(page, map.at(-3, -2), map.at(-3, 1));
  const bent = (await rider()).transformKeys?.keys ?? [];
  expect(bent.map(({ frame }) => frame)).toEqual([1, 25, 49]);
  expect(bent[1].translation[2]).toBeCloseTo(1, 1);
  // In the run diagram it comes later.
  const knob = page.getByRole('slider', { name: 'Key 3 of A1' });
  await knob.focus();
  for (let n = 0; n < 12; n++) await page.keyboard.press('ArrowRight');
  expect((await rider()).transformKeys?.keys.map(({ frame }) => frame)).toEqual([1, 25, 61]);
  const byHand = await track();

  await page.getByRole('button', { name: 'Give it a path of its own' }).click();
  expect((await rider()).transformKeys).toBeNull();
  expect(furthest(await track(), byHand)).toBeLessThan(1e-9);
  await page.getByRole('button', { name: 'Turn it into hand keys' }).click();
  expect((await rider()).attachment).toBeNull();
  expect(furthest(await track(), byHand)).toBeLessThan(0.005);
  await page.getByRole('button', { name: /^Undo/ }).click();

  await page.getByRole('button', { name: 'Freeze' }).click();
  const frozen = await rider();
  expect(frozen.frozen).not.toBeNull();
  expect(furthest(await track(), byHand)).toBeLessThan(0.001);
  await page.getByRole('button', { name: 'Thaw' }).click();
  expect(await rider()).toEqual({ ...frozen, frozen: null });
});

test('copies of what stands are set out evenly round, over an area by a seed, and taken back as one step', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const barrel = { id: 'a', name: 'Barrel', badge: 'A1', model: 'barrel', rest: { translation: [2, 0, 1] } };
  const id = await openShotOf(page, request, bare(orchard, 'Copies', [barrel]), 'Attach');
  const places = async () => {
    await settled(page);
    return (await storedShot(request, id)).document.riders.map(({ rest }) => rest.translation);
  };
  await page.getByRole('button', { name: 'Copies', exact: true }).click();
  await page.getByRole('button', { name: 'Copy A1', exact: true }).click();
  await choose(page, 'Arrangement', 'In a ring');
  await fill(page, 'Copies', '7');
  await fill(page, 'Radius', '6');
  await page.getByRole('button', { name: 'Add 7 copies' }).click();
  const ring = await places();
  expect(ring).toHaveLength(8);
  for (const [x, , z] of ring) expect(Math.hypot(x - 8, z - 1)).toBeCloseTo(6, 9);
  await page.getByRole('button', { name: /^Undo: Copy A1/ }).click();
  expect(await places()).toEqual([[2, 0, 1]]);
  await page.getByRole('button', { name: 'Copy A1', exact: true }).click();
  await choose(page, 'Arrangement', 'Over an area');
  await fill(page, 'Copies', '40');
  await fill(page, 'Radius', '10');
  await page.getByRole('button', { name: 'Add 40 copies' }).click();
  const spread = await places();
  expect(spread).toHaveLength(41);
  for (const [x, , z] of spread) expect(Math.hypot(x - 2, z - 1)).toBeLessThanOrEqual(10);
});
