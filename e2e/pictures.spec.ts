import { readFile } from 'node:fs/promises';
import { expect, test, type Download, type Locator, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { fill, openShotOf } from './support/desk.js';

/** A box that passes before a camera, on a path of 12 m in a second. */
async function passing(page: Page, request: Parameters<typeof openShotOf>[1]): Promise<Locator> {
  await openShotOf(
    page,
    request,
    {
      name: 'Passing',
      range: { first: 1, last: 12 },
      loop: true,
      paths: [
        {
          id: 'p',
          name: 'P',
          basis: 'polyline',
          points: [{ position: [-6, 0, 0] }, { position: [6, 0, 0] }],
        },
      ],
      riders: [
        {
          id: 'r',
          name: 'Box',
          badge: 'B1',
          hitch: {
            path: 'p',
            pace: {
              keys: [
                { frame: 1, value: 0 },
                { frame: 13, value: 12 },
              ],
            },
          },
        },
        {
          id: 'c',
          name: 'Eye',
          badge: 'C2',
          kind: 'camera',
          camera: { focal: 18 },
          rest: { translation: [0, 1, -9] },
        },
      ],
    },
    'Hand over',
  );
  const section = page.getByRole('region', { name: 'Pictures and video' });
  await section.getByRole('button', { name: /Seen through$/ }).click();
  await page.getByRole('option', { name: 'C2 Eye' }).click();
  await section.getByRole('button', { name: /Size$/ }).click();
  await page.getByRole('option', { name: 'Another size' }).click();
  await fill(page, 'Width', '320');
  await fill(page, 'Height', '180');
  return section;
}

async function bytesOf(download: Download): Promise<Uint8Array> {
  return new Uint8Array(await readFile(await download.path()));
}

/** Where a picture is darker or lighter than its corner, by the browser's own reading: its size, its corner's alpha, and the middle of the rest, in parts of the width. */
async function seenIn(page: Page, png: Uint8Array) {
  return page.evaluate(async (base64) => {
    const blob = await (await fetch(`data:image/png;base64,${base64}`)).blob();
    const image = await createImageBitmap(blob);
    const canvas = new OffscreenCanvas(image.width, image.height);
    const target = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
    target.drawImage(image, 0, 0);
    const { data } = target.getImageData(0, 0, image.width, image.height);
    let [sum, count] = [0, 0];
    for (let i = 0; i < data.length; i += 4) {
      const off = [0, 1, 2, 3].reduce((most, k) => Math.max(most, Math.abs(data[i + k] - data[k])), 0);
      if (off < 40) continue;
      sum += (i / 4) % image.width;
      count++;
    }
    return {
      width: image.width,
      height: image.height,
      alpha: data[3],
      count,
      middle: sum / count / image.width,
    };
  }, Buffer.from(png).toString('base64'));
}

test('a picture through a camera has its size, shows where the rider is, and may have no background', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  const make = async () => {
    const download = page.waitForEvent('download');
    await section.getByRole('button', { name: 'Make the picture', exact: true }).click();
    return download;
  };
  const first = await make();
  expect(first.suggestedFilename()).toBe('Passing frame-0001.png');
  const early = await seenIn(page, await bytesOf(first));
  expect(early).toMatchObject({ width: 320, height: 180, alpha: 255 });
  await page.getByRole('button', { name: /^frame \d+ \/ 12$/ }).click();
  await page.getByRole('textbox', { name: 'Go to frame' }).fill('12');
  await page.keyboard.press('Enter');
  await section.getByText('Without a background').click();
  const second = await make();
  expect(second.suggestedFilename()).toBe('Passing frame-0012.png');
  const late = await seenIn(page, await bytesOf(second));
  expect(late.alpha).toBe(0);
  // It looks along +Z, so what goes to +X goes to its left.
  expect(early.count).toBeGreaterThan(20);
  expect(early.middle).toBeGreaterThan(0.6);
  expect(late.middle).toBeLessThan(0.4);
});

test('the range becomes a zip of numbered pictures, drawn finer where that is asked for', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  await section.getByRole('radio', { name: 'The range' }).click();
  await fill(page, 'Every', '5');
  await section.getByRole('button', { name: /Drawn at$/ }).click();
  await page.getByRole('option', { name: '3 ×' }).click();
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: 'Make the pictures' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Passing.zip');
  const entries = unzipSync(await bytesOf(file));
  expect(Object.keys(entries)).toEqual(['frame-0001.png', 'frame-0006.png', 'frame-0011.png']);
  const middles: number[] = [];
  for (const png of Object.values(entries)) {
    const { width, height, middle } = await seenIn(page, png);
    expect([width, height]).toEqual([320, 180]);
    middles.push(middle);
  }
  expect(middles[0]).toBeGreaterThan(middles[1]);
  expect(middles[1]).toBeGreaterThan(middles[2]);
});

test('a film lasts as long as the shot, as often round as asked, and can be cancelled', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  await section.getByRole('radio', { name: 'WebM' }).click();
  await fill(page, 'Goes round', '3');
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: 'Make the film' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Passing.webm');
  const film = Buffer.from(await bytesOf(file)).toString('base64');
  // By the browser's own player, on a page of its own: the desk's plays nothing that is not its own.
  const player = await page.context().newPage();
  const played = await player.evaluate(async (base64) => {
    const video = document.createElement('video');
    video.muted = true;
    video.src = `data:video/webm;base64,${base64}`;
    await new Promise((ready, failed) => {
      video.onloadeddata = ready;
      video.onerror = failed;
    });
    return { width: video.videoWidth, height: video.videoHeight, seconds: video.duration };
  }, film);
  await player.close();
  expect(played).toMatchObject({ width: 320, height: 180 });
  // Thrice twelve frames at 24 a second.
  expect(played.seconds).toBeCloseTo(1.5, 1);

  await fill(page, 'Goes round', '100');
  await section.getByRole('button', { name: 'Make the film' }).click();
  await expect(section.getByRole('progressbar', { name: 'Pictures' })).toBeVisible();
  await section.getByRole('button', { name: 'Cancel the pictures' }).click();
  await expect(page.getByText('Cancelled; nothing was made.')).toBeVisible();
  await expect(section.getByRole('button', { name: 'Make the film' })).toBeEnabled();
});
