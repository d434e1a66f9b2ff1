import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import type { Download, Locator, Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { fill, openShotOf } from './support/desk.js';
import { expect, test } from './support/test.js';

const execute = promisify(execFile);

/** A box that passes before a camera, on a path of 12 m in a second. */
async function passing(
  page: Page,
  request: Parameters<typeof openShotOf>[1],
  more: { riders?: object[]; cuts?: object[] } = {},
): Promise<Locator> {
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
          attachment: {
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
        ...(more.riders ?? []),
      ],
      cuts: more.cuts ?? [],
    },
    'Hand over',
  );
  const section = page.getByRole('region', { name: 'Pictures and video' });
  await section.getByRole('button', { name: /Camera$/ }).click();
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

/**
 * Box in which a picture is darker or lighter than its corner, as the browser decodes it: its size, the corner's
 * alpha, and the middle of the box, in parts of the width.
 */
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
  await section.getByRole('button', { name: /Oversampling$/ }).click();
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

/** Streams of a film as an independent player reads them. */
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
  await choose(page, section, 'Format', 'WebM film');
  await fill(page, 'Loops', '3');
  const film = await made(page, section, 'Make the film');
  expect(film.suggestedFilename()).toBe('Passing.webm');
  // Thrice twelve frames at 24 a second.
  const size = { width: 320, height: 180 };
  const webm = { codec_name: 'vp9', ...size, avg_frame_rate: '24/1', nb_read_frames: '36' };
  expect(await probed(film)).toEqual(webm);
  const seen = await brightness(film);
  expect(Math.min(...seen)).toBeGreaterThan(100);
  expect(Math.max(...seen)).toBeLessThan(250);

  await choose(page, section, 'Format', 'MP4 film');
  await fill(page, 'Loops', '1');
  const mp4 = await made(page, section, 'Make the film');
  expect(await probed(mp4)).toMatchObject({ codec_name: 'h264', ...size, nb_read_frames: '12' });

  await choose(page, section, 'Format', 'WebM film, AV1');
  const av1 = await made(page, section, 'Make the film');
  expect(await probed(av1)).toMatchObject({ codec_name: 'av1', ...size, nb_read_frames: '12' });

  await choose(page, section, 'Format', 'GIF');
  const gif = await made(page, section, 'Make the film');
  expect(await probed(gif)).toMatchObject({
    codec_name: 'gif',
    width: 640,
    height: 360,
    nb_read_frames: '12',
  });

  // Finished pictures stay in the list, and are still there on a page that was opened again.
  await page.reload();
  const list = section.getByRole('list', { name: 'Finished pictures' });
  await expect(list.getByRole('listitem')).toHaveCount(4);
  const again = page.waitForEvent('download');
  await list.getByRole('button', { name: 'Download Passing.webm' }).last().click();
  expect(await bytesOf(await again)).toEqual(await bytesOf(film));

  await choose(page, section, 'Format', 'WebM film');
  await fill(page, 'Loops', '100');
  await choose(page, section, 'Oversampling', '4 ×');
  await section.getByRole('button', { name: 'Make the film' }).click();
  await expect(section.getByRole('progressbar', { name: 'Pictures' })).toBeVisible();
  await section.getByRole('button', { name: 'Cancel the pictures' }).click();
  await expect(page.getByText('Cancelled; nothing was made.')).toBeVisible();
  await expect(list.getByRole('listitem')).toHaveCount(4);
});

/** A camera high up that looks straight down: it sees the ground alone, which is darker than the sky. */
const fromAbove = {
  id: 'd',
  name: 'High',
  badge: 'C3',
  kind: 'camera',
  camera: { focal: 18 },
  rest: { translation: [0, 20, 0], rotation: [Math.SQRT1_2, 0, 0, Math.SQRT1_2] },
};

/** Red, green and blue of a picture, row by row, by the browser's own reading. */
async function pixelsOf(page: Page, png: Uint8Array) {
  const { width, base64 } = await page.evaluate(async (source) => {
    const image = await createImageBitmap(await (await fetch(`data:image/png;base64,${source}`)).blob());
    const target = new OffscreenCanvas(image.width, image.height).getContext(
      '2d',
    ) as OffscreenCanvasRenderingContext2D;
    target.drawImage(image, 0, 0);
    const { data } = target.getImageData(0, 0, image.width, image.height);
    let text = '';
    for (const value of data) text += String.fromCharCode(value);
    return { width: image.width, base64: btoa(text) };
  }, Buffer.from(png).toString('base64'));
  const data = Buffer.from(base64, 'base64');
  const at = (x: number, y: number): number[] => {
    const from = 4 * (Math.round(y) * width + Math.round(x));
    return [...data.subarray(from, from + 3)];
  };
  return { width, height: data.length / 4 / width, at };
}

const greyOf = (color: readonly number[]) => (color[0] + color[1] + color[2]) / 3;

test('a film through the cuts changes its camera at the cut, and several cameras are seen side by side', async ({
  page,
  request,
}) => {
  const cuts = [
    { frame: 1, camera: 'c' },
    { frame: 7, camera: 'd' },
  ];
  const section = await passing(page, request, { riders: [fromAbove], cuts });
  await choose(page, section, 'Camera', 'The cuts');
  await choose(page, section, 'Format', 'WebM film');
  const seen = await brightness(await made(page, section, 'Make the film'));
  expect(seen).toHaveLength(12);
  expect(Math.min(...seen.slice(0, 6))).toBeGreaterThan(Math.max(...seen.slice(6)) + 8);

  await choose(page, section, 'Format', 'PNG');
  await choose(page, section, 'Camera', 'Several side by side');
  const both = await pixelsOf(page, await bytesOf(await made(page, section, 'Make the picture')));
  // On the left the sky over the ground, on the right the ground alone, both at their upper edge.
  const [left, right] = [both.at(80, 10), both.at(240, 10)].map(greyOf);
  expect(left).toBeGreaterThan(right + 8);
});

test('drawn finer a picture comes nearer to a large one, and has the colours of the stage', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  const taken = async () => pixelsOf(page, await bytesOf(await made(page, section, 'Make the picture')));
  const plain = await taken();
  await choose(page, section, 'Oversampling', '4 ×');
  const fine = await taken();
  await choose(page, section, 'Oversampling', '1 ×');
  await choose(page, section, 'Size', '1280 × 720');
  const large = await taken();
  /** The mean square that a small picture is off the large one, of which four by four pixels make one. */
  const off = (small: typeof plain) => {
    let sum = 0;
    for (let y = 0; y < small.height; y++)
      for (let x = 0; x < small.width; x++) {
        let mean = 0;
        for (let k = 0; k < 16; k++) mean += greyOf(large.at(4 * x + (k % 4), 4 * y + (k >> 2))) / 16;
        sum += (greyOf(small.at(x, y)) - mean) ** 2;
      }
    return sum / (small.width * small.height);
  };
  expect(off(fine)).toBeLessThan(0.5 * off(plain));

  await choose(page, section, 'Camera', 'This view');
  const picture = await taken();
  const stage = page.getByRole('application');
  await page.getByRole('button', { name: /^Draw the stage/ }).click();
  await expect(page.getByRole('note', { name: 'Still stage' })).toBeHidden();
  const shown = await pixelsOf(page, await stage.screenshot());
  // Both see as much up and down, so a place is as many heights from the middle. Lines of the grid may lie at some.
  const places = [-0.6, -0.3, 0.1].flatMap((x) => [0.2, 0.3, 0.36].map((y) => [x, y]));
  const like = places.filter(([x, y]) => {
    const [a, b] = [picture, shown].map(({ width, height, at }) =>
      at(width / 2 + x * height, height / 2 + y * height),
    );
    return a.every((value, k) => Math.abs(value - b[k]) <= 4);
  });
  expect(like.length).toBeGreaterThanOrEqual(6);
});

test('a sheet is a page of pictures over the run diagram, which is handed over by itself too', async ({
  page,
  request,
}) => {
  const section = await passing(page, request);
  await choose(page, section, 'Format', 'Sheet, PNG');
  await section.getByRole('radio', { name: 'Even steps' }).click();
  await fill(page, 'Every', '4');
  const sheet = await made(page, section, 'Make the sheet');
  expect(sheet.suggestedFilename()).toBe('Passing sheet.png');
  expect(await seenIn(page, await bytesOf(sheet))).toMatchObject({ width: 2339, height: 1654 });
  await choose(page, section, 'Format', 'Sheet, PDF');
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
  await choose(page, section, 'Format', 'WebM film');
  const alone = await made(page, section, 'Make the film');
  await section.getByText('Render in this window').click();
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: 'Make the film', exact: true }).click();
  await expect(section.getByText('Waiting for a renderer.')).toBeVisible();
  // One takes a run and is gone before it gives any picture back.
  const dies = await context.newPage();
  await dies.route('**/api/pool/batches/*/pictures/*', () => undefined);
  await dies.goto('/pool');
  await dies.getByRole('button', { name: 'Render in this window' }).click();
  await expect(dies.getByRole('list', { name: 'Jobs' }).getByLabel(/This window has 0 of/)).toBeVisible();
  await dies.close();
  const lent = await context.newPage();
  await lent.goto('/pool');
  await lent.getByRole('button', { name: 'Render in this window' }).click();
  await expect(lent.getByRole('list', { name: 'Renderers' }).getByRole('listitem').first()).toBeVisible();
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
    const { stdout } = await execute(
      process.execPath,
      [program, 'render', join(folder, 'a.shot.json'), ...args],
      { env: { ...process.env, XDG_STATE_HOME: join(folder, 'state') } },
    );
    expect(stdout).toContain('2 pictures, 320x180');
    expect(readdirSync(join(folder, 'out')).sort()).toEqual(Object.keys(desks));
    for (const [name, bytes] of Object.entries(desks))
      expect(new Uint8Array(readFileSync(join(folder, 'out', name)))).toEqual(bytes);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
