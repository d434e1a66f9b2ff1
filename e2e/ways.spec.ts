import type { Page } from '@playwright/test';
import { boardNumber, goToFrame, settled, storedShot } from './support/desk.js';
import { along, openLane, paceOf, riding } from './support/lane.js';
import { expect, test } from './support/test.js';

const heading = (page: Page) => expect.poll(() => boardNumber(page, 'Heading'));

test('with its ends swapped a rider is offered to face where it goes, and then does', async ({
  page,
  request,
}) => {
  const id = await openLane(page, request);
  await goToFrame(page, 61);
  await heading(page).toBe(0);
  await page.getByRole('button', { name: 'Swap ends' }).click();
  // Tail first, until it is turned.
  await heading(page).toBe(0);
  await page.getByText('Turn R1 to face where it goes').click();
  await heading(page).toBe(180);
  await settled(page);
  const { attachment } = (await storedShot(request, id)).document.riders[0];
  expect(attachment?.facing.along).toBe('travel');
  expect(attachment?.pace.keys.map(({ value }) => value)).toEqual([60, 0]);
});

test('driven against the path after a ride back; by keys again it has the keys it had', async ({
  page,
  request,
}) => {
  const back = {
    keys: [
      { frame: 1, value: 60, ease: 'smooth' },
      { frame: 121, value: 0, ease: 'smooth' },
    ],
  };
  const id = await openLane(page, request, back);
  const { keys } = await paceOf(request, id);
  await page.getByRole('radio', { name: 'Driven' }).click();
  await expect(
    page.getByRole('radiogroup', { name: 'Direction' }).getByRole('radio', { name: 'Against it' }),
  ).toBeChecked();
  await settled(page);
  expect((await paceOf(request, id)).drive.way).toBe('against');
  await page.getByRole('radio', { name: 'By keys' }).click();
  await settled(page);
  expect((await paceOf(request, id)).keys).toEqual(keys);
});

test('a cue is on when it is added, and tells what it waits for and when that comes', async ({
  page,
  request,
}) => {
  const second = { id: 's', name: 'Second', badge: 'S2', attachment: { path: 'lane', pace: along } };
  const id = await openLane(page, request, along, { riders: [riding(along), second] });
  await page.getByRole('button', { name: 'Cues' }).click();
  await page.getByRole('button', { name: 'Add a cue' }).click();
  const cue = page.getByRole('group', { name: 'Cue 1', exact: true });
  await expect(cue.getByRole('checkbox', { name: 'Cue 1' })).toBeChecked();
  // Half a metre a frame: 10 m are reached at frame 21.
  await expect(cue.getByRole('status')).toHaveText('Acts at frame 21.');
  const far = cue.getByRole('textbox', { name: 'Distance reached' });
  await far.fill('90 m');
  await far.press('Enter');
  await expect(cue.getByRole('status')).toContainText('Waits for R1 to come as far as 90 m');
  await settled(page);
  expect((await storedShot(request, id)).document.cues).toMatchObject([{ off: false }]);
});
