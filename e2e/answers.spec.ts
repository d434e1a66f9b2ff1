import { demoShot } from './support/checks.js';
import { choose, goTo, openShotOf, settled, storedShot } from './support/desk.js';
import { expect, test } from './support/test.js';

const keys = (...all: [number, number][]) => ({ keys: all.map(([frame, value]) => ({ frame, value })) });

test('a walker waits until the hauler has stopped, walks to it, rides along and gets off; the gate answers with both leaves', async ({
  page,
  request,
}) => {
  const orchard = await demoShot(request, 'Orchard loop');
  const line = (id: string, points: [number, number, number][]) => ({
    id,
    name: id,
    basis: 'polyline',
    points: points.map((position) => ({ position })),
  });
  const id = await openShotOf(
    page,
    request,
    {
      name: 'Getting on',
      range: { first: 1, last: 145 },
      models: orchard.models,
      paths: [
        line('road', [
          [0, 0, 0],
          [0, 0, 60],
        ]),
        line('aside', [
          [8, 0, 12],
          [2, 0, 12],
        ]),
      ],
      riders: [
        {
          id: 'h',
          name: 'Hauler',
          badge: 'H1',
          model: 'hauler',
          kind: 'vehicle',
          attachment: { path: 'road', pace: keys([1, 0], [49, 12], [97, 12], [145, 24]) },
        },
        {
          id: 'p',
          name: 'Picker',
          badge: 'P2',
          model: 'picker',
          kind: 'character',
          attachment: { path: 'aside', pace: keys([1, 0], [37, 6]) },
        },
        { id: 'g', name: 'Gate', badge: 'G3', model: 'gate', rest: { translation: [0, 0, 30] } },
      ],
    },
    'Pace',
  );
  const stored = async () => {
    await settled(page);
    return (await storedShot(request, id)).document;
  };
  await page.getByRole('button', { name: 'Cues', exact: true }).click();
  // In plain words: a rider that stops on the road starts another.
  await page.getByRole('button', { name: 'P2 Picker sets off' }).click();
  await expect(page.getByRole('group', { name: 'Cue 1' })).toContainText('Acts at frame 49');
  await page.getByRole('button', { name: 'Add a cue' }).click();
  const cue = page.getByRole('group', { name: 'Cue 2', exact: true });
  await cue.getByRole('button', { name: /When$/ }).click();
  await page.getByRole('option', { name: 'Stop', exact: true }).click();
  await cue.getByRole('button', { name: /Rider$/ }).click();
  await page.getByRole('option', { name: 'H1 Hauler' }).click();
  await cue.getByRole('button', { name: /Target$/ }).click();
  await page.getByRole('option', { name: 'G3 Gate' }).click();
  await cue.getByRole('button', { name: /Action$/ }).click();
  await page.getByRole('option', { name: 'Turns a part' }).click();
  await cue.getByRole('button', { name: 'Another part' }).click();
  const made = (await stored()).cues[1];
  expect(made).toMatchObject({
    trigger: { kind: 'stop', rider: 'h', stop: 0, from: 'begin' },
    action: { kind: 'turn', rider: 'g', times: 1 },
    moreActions: [{ kind: 'turn', rider: 'g', times: -1 }],
  });
  expect(made.moreActions[0].node).not.toBe(made.action.node);

  // A frame is typed into the clock; there it gets on, and off further on.
  const goToTyped = async (frame: string) => {
    await page.getByRole('button', { name: /^frame \d+ \/ 145$/ }).click();
    await page.getByRole('textbox', { name: 'Go to frame' }).fill(frame);
    await page.keyboard.press('Enter');
  };
  await goTo(page, 'Attach');
  await page.getByRole('radio', { name: 'P2 Picker' }).click();
  await goToTyped('4 s');
  await expect(page.getByText('frame 96 / 145')).toBeVisible();
  await page.getByRole('button', { name: 'Carrier switches' }).click();
  await choose(page, 'Switch to', 'H1 Hauler');
  await page.getByRole('button', { name: 'Switch at frame 96' }).click();
  await goToTyped('+40');
  await page.getByRole('button', { name: 'Detach at frame 136' }).click();
  await page.getByRole('button', { name: 'To the previous key' }).click();
  await expect(page.getByText('frame 96 / 145')).toBeVisible();
  const { parentKeys } = (await stored()).riders[1];
  expect(parentKeys).toMatchObject([
    { frame: 96, rider: 'h', blend: 0 },
    { frame: 136, rider: null, blend: 0.5 },
  ]);
  const rows = (await (await request.get(`/api/shots/${id}/files/csv`)).text())
    .split('\n')
    .map((row) => row.split(','));
  const at = (who: string, frame: number, part = '') =>
    rows
      .find((cells) => Number(cells[0]) === frame && cells[2] === who && cells[3] === part)
      ?.slice(4, 11)
      .map(Number) as number[];
  // At rest until frame 49, at the hauler's side by frame 85, and beside it all the way from 96 on.
  expect(at('p', 49).slice(0, 3)).toEqual([8, 0, 12]);
  expect(at('p', 90)[0]).toBeCloseTo(2, 6);
  for (const frame of [96, 110, 135]) expect(at('p', frame)[2] - at('h', frame)[2]).toBeCloseTo(0, 6);
  const [left, right] = [made.action.node, made.moreActions[0].node].map((node) =>
    at('g', 97, node as string),
  );
  // About its own upright axis each is turned as far as the other, the other way round.
  expect(left[4]).toBeCloseTo(-right[4], 6);
  expect(Math.abs(left[4])).toBeGreaterThan(0.1);
});
