import { range } from './support/courses.js';
import { openShotOf } from './support/desk.js';
import { expect, test } from './support/test.js';

test('a jagged path says how rough it is and where, and is smoothed from there, more than once', async ({
  page,
  request,
}) => {
  // Corners a metre apart, 0.1 m to either side: each turns by 2·atan 0.2 = 22.6°; at 24 m by three times as much aside.
  const points = Array.from({ length: 60 }, (_, i) => ({
    position: [(i % 2 === 0 ? 0.1 : -0.1) * (i === 24 ? 3 : 1), 0, i],
  }));
  const path = { id: 'j', name: 'Jagged', basis: 'polyline', points };
  const riders = [{ id: 'a', name: 'Anna', badge: 'A1' }];
  await openShotOf(page, request, { name: 'Rough', range, paths: [path], riders }, 'Path');
  const facts = page.getByLabel('Facts');
  // The runs to the farthest corner and away from it go 0.4 m aside over 1 m; 23 go 0.2 m before: 24.53 m to it.
  await expect(facts).toContainText('Roughness43.6° at 24.5 m');
  await expect(facts).toContainText('Short alternating bends56');
  await page.getByRole('button', { name: 'Smooth it…' }).click();
  await expect(page.getByLabel('Result')).toContainText(/Roughest bend turns43\.6° → \d/);
  await page.getByRole('button', { name: 'Accept (Enter)' }).click();
  const roughness = async () =>
    Number(/Roughness(?:([\d.]+)°|none)/.exec((await facts.textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(roughness).toBeLessThan(43);
  const once = await roughness();
  await page.getByRole('button', { name: 'Smooth it…' }).click();
  await page.getByRole('button', { name: 'Accept (Enter)' }).click();
  await expect.poll(roughness).toBeLessThan(once);
});
