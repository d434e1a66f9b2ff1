import { expect, type Page } from '@playwright/test';

/** Positions of the ground in the Plan view, from the stage's own coordinates. */
export interface PlanMap {
  at(x: number, z: number): { x: number; y: number };
}

/** Rectangle of the stage on the page, as soon as it answers to the pointer: it mounts after the desk around it. */
export async function stageBox(page: Page): Promise<{ x: number; y: number; width: number; height: number }> {
  await expect(page.getByRole('button', { name: 'Show everything' })).toBeEnabled();
  const box = await page.getByRole('group', { name: 'Stage' }).boundingBox();
  if (box === null) throw new Error('The stage is not shown.');
  return box;
}

/**
 * Measures the Plan view by the coordinates it shows under the pointer while a path is drawn. Draw mode
 * must be on.
 */
export async function measurePlan(page: Page): Promise<PlanMap> {
  const box = await stageBox(page);
  let text = '';
  const readAt = async (x: number, y: number): Promise<[number, number]> => {
    await page.mouse.move(x, y);
    const readout = page.getByText(/^x .+ · z .+ m$/);
    await expect(readout).toBeVisible();
    // The page may still show what was under the pointer before.
    await expect(readout).not.toHaveText(text);
    text = (await readout.textContent()) ?? '';
    const numbers = text.replaceAll('−', '-').match(/-?[\d.]+/g) as string[];
    return [Number(numbers[0]), Number(numbers[1])];
  };
  const [left, top] = [box.x + 100, box.y + 100];
  const [right, bottom] = [box.x + box.width - 260, box.y + box.height - 120];
  const [x0, z0] = await readAt(left, top);
  const [x1, z1] = await readAt(right, bottom);
  // The readings are to the nearest 0.1 m, which over the whole stage is a fraction of a pixel.
  return {
    at: (x, z) => ({
      x: left + ((x - x0) / (x1 - x0)) * (right - left),
      y: top + ((z - z0) / (z1 - z0)) * (bottom - top),
    }),
  };
}

export async function clickPlan(page: Page, map: PlanMap, x: number, z: number): Promise<void> {
  const place = map.at(x, z);
  await page.mouse.move(place.x, place.y);
  await page.mouse.click(place.x, place.y);
}

export async function dragBy(
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
  beforeDrop?: () => Promise<void>,
): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await page.mouse.move(to.x, to.y);
  await beforeDrop?.();
  await page.mouse.up();
}
