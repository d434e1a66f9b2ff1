import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { expect, test, type Download, type Locator, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { fill, openShotOf } from './support/desk.js';

const execute = promisify(execFile);

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

/** What a player of its own kind reads of a film. */
async function probed(file: Download) {
  const entries = 'stream=codec_name,width,height,avg_frame_rate,nb_read_frames';
  const args = ['-v', 'error', '-count_frames', '-show_entries', entries, '-of', 'json'];
  const { stdout } = await execute('ffprobe', [...args, await file.path()]);
  const [stream] = (JSON.parse(stdout) as { streams: Record<string, string | number>[] }).streams;
  return stream;
}

/** The brightness of each picture of a film. */
async function brightness(file: Download): Promise<number[]> {
  const args = [
    '-v',
    'error',
    '-i',
    await file.path(),
    '-vf',
    'scale=1:1',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'gray',
    '-',
  ];
  const { stdout } = await execute('ffmpeg', args, { encoding: 'buffer' });
  return [...(stdout as unknown as Buffer)];
}

async function choose(page: Page, section: Locator, label: string, option: string): Promise<void> {
  await section.getByRole('button', { name: new RegExp(`${label}$`) }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

async function made(page: Page, section: Locator, verb: string): Promise<Download> {
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: verb, exact: true }).click();
  return download;
}

test('films last as long as the shot, as often round as asked; none of their pictures is blank; one can be cancelled', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  await choose(page, section, 'As', 'WebM film');
  await fill(page, 'Goes round', '3');
  const film = await made(page, section, 'Make the film');
  expect(film.suggestedFilename()).toBe('Passing.webm');
  // Thrice twelve frames at 24 a second.
  const size = { width: 320, height: 180 };
  const webm = { codec_name: 'vp9', ...size, avg_frame_rate: '24/1', nb_read_frames: '36' };
  expect(await probed(film)).toEqual(webm);
  const seen = await brightness(film);
  expect(Math.min(...seen)).toBeGreaterThan(100);
  expect(Math.max(...seen)).toBeLessThan(250);

  await choose(page, section, 'As', 'MP4 film');
  await fill(page, 'Goes round', '1');
  const mp4 = await made(page, section, 'Make the film');
  expect(await probed(mp4)).toMatchObject({ codec_name: 'h264', ...size, nb_read_frames: '12' });

  await choose(page, section, 'As', 'WebM film, AV1');
  const av1 = await made(page, section, 'Make the film');
  expect(await probed(av1)).toMatchObject({ codec_name: 'av1', ...size, nb_read_frames: '12' });

  await choose(page, section, 'As', 'GIF');
  const gif = await made(page, section, 'Make the film');
  expect(await probed(gif)).toMatchObject({
    codec_name: 'gif',
    width: 640,
    height: 360,
    nb_read_frames: '12',
  });

  // What was made stays in the list, and is still there on a page that was opened anew.
  await page.reload();
  const list = section.getByRole('list', { name: 'Pictures made' });
  await expect(list.getByRole('listitem')).toHaveCount(4);
  const again = page.waitForEvent('download');
  await list.getByRole('button', { name: 'Download Passing.webm' }).last().click();
  expect(await bytesOf(await again)).toEqual(await bytesOf(film));

  await choose(page, section, 'As', 'WebM film');
  await fill(page, 'Goes round', '100');
  await choose(page, section, 'Drawn at', '4 ×');
  await section.getByRole('button', { name: 'Make the film' }).click();
  await expect(section.getByRole('progressbar', { name: 'Pictures' })).toBeVisible();
  await section.getByRole('button', { name: 'Cancel the pictures' }).click();
  await expect(page.getByText('Cancelled; nothing was made.')).toBeVisible();
  await expect(list.getByRole('listitem')).toHaveCount(4);
});

test('a sheet is a page of pictures over the run diagram, which is handed over by itself too', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  await choose(page, section, 'As', 'Sheet, PNG');
  await section.getByRole('radio', { name: 'Even steps' }).click();
  await fill(page, 'Every', '4');
  const sheet = await made(page, section, 'Make the sheet');
  expect(sheet.suggestedFilename()).toBe('Passing sheet.png');
  expect(await seenIn(page, await bytesOf(sheet))).toMatchObject({ width: 2339, height: 1654 });
  await choose(page, section, 'As', 'Sheet, PDF');
  const pdf = await made(page, section, 'Make the sheet');
  const text = Buffer.from(await bytesOf(pdf)).toString('latin1');
  expect(text.slice(0, 5)).toBe('%PDF-');
  expect(text.match(/\/Type \/Page\b/g)).toHaveLength(1);

  const diagram = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Diagram as SVG' }).click();
  const svg = Buffer.from(await bytesOf(await diagram)).toString();
  const read = await page.evaluate((source) => {
    const drawing = new DOMParser().parseFromString(source, 'image/svg+xml').documentElement;
    document.body.append(drawing);
    // The line of the box, by the browser's own reading: from the first frame's to the last's place.
    const line = Array.from(drawing.querySelectorAll<SVGPathElement>('path')).find(
      (path) => path.getAttribute('stroke-width') === '3',
    );
    const end = line?.getPointAtLength(line.getTotalLength());
    const start = line?.getPointAtLength(0);
    const texts = Array.from(drawing.querySelectorAll('text')).map((one) => one.textContent);
    drawing.remove();
    return { start: [start?.x, start?.y], end: [end?.x, end?.y], texts };
  }, svg);
  expect(read.texts).toEqual(expect.arrayContaining(['P', '0 m', '10 m']));
  const [x0, y0] = read.start as [number, number];
  const [x1, y1] = read.end as [number, number];
  // Time goes across the whole drawing, and distance up.
  expect([x0, x1]).toEqual([56, 1266]);
  expect(y1).toBeLessThan(y0 - 100);
});

test('windows that are lent draw for a desk that does not; one that dies has its pictures drawn by the other', async ({
  page,
  request,
  context,
}) => {
  const section = await passing(page, request);
  await choose(page, section, 'As', 'WebM film');
  const alone = await made(page, section, 'Make the film');
  await section.getByText('Draw them on this desk').click();
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: 'Make the film', exact: true }).click();
  await expect(section.getByText('Waiting for a taker.')).toBeVisible();
  // One takes a run and is gone before it gives any picture back.
  const dies = await context.newPage();
  await dies.route('**/api/pool/runs/*/pictures/*', () => undefined);
  await dies.goto('/pool');
  await dies.getByRole('button', { name: 'Lend this window' }).click();
  await expect(dies.getByRole('list', { name: 'Jobs' }).getByLabel(/This window has 0 of/)).toBeVisible();
  await dies.close();
  const lent = await context.newPage();
  await lent.goto('/pool');
  await lent.getByRole('button', { name: 'Lend this window' }).click();
  await expect(lent.getByRole('list', { name: 'Takers' }).getByRole('listitem').first()).toBeVisible();
  const film = await download;
  expect(await bytesOf(film)).toEqual(await bytesOf(alone));
  await expect(lent.getByLabel(/^Pictures 1 to 4: done; lost once$/)).toBeVisible();
  await lent.close();
});

test('on the command line the same pictures are drawn', async ({ page, request }) => {
  const section = await passing(page, request);
  await section.getByRole('radio', { name: 'The range' }).click();
  await fill(page, 'Every', '6');
  const file = await made(page, section, 'Make the pictures');
  const desks = unzipSync(await bytesOf(file));
  const shotFile = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download Shot file' }).click();
  const folder = mkdtempSync(join(tmpdir(), 'fleet-rail-render-'));
  try {
    await (await shotFile).saveAs(join(folder, 'a.shot.json'));
    const args = ['--out', join(folder, 'out/'), '--size', '320x180', '--camera', 'C2', '--every', '6'];
    const program = fileURLToPath(new URL('../packages/cli/dist/main.js', import.meta.url));
    const { stdout } = await execute(process.execPath, [
      program,
      'render',
      join(folder, 'a.shot.json'),
      ...args,
    ]);
    expect(stdout).toContain('2 pictures, 320x180');
    expect(readdirSync(join(folder, 'out')).sort()).toEqual(Object.keys(desks));
    for (const [name, bytes] of Object.entries(desks))
      expect(new Uint8Array(readFileSync(join(folder, 'out', name)))).toEqual(bytes);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
