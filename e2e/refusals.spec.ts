import { importPaths, openNewShot, settled, storedShot, uploadModel } from './support/desk.js';
import { cartModel, squareLane, svgFile } from './support/files.js';
import { expect, test } from './support/test.js';

const glb = (name: string, buffer: Buffer) => ({ name, mimeType: 'model/gltf-binary', buffer });

test('broken and foreign models are refused with a reason, and nothing is stored', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Bad models');
  const models = async () => ((await (await request.get('/api/models')).json()) as unknown[]).length;
  const before = await models();
  const cart = (await cartModel()).buffer;
  const cases: [ReturnType<typeof glb>, RegExp][] = [
    [glb('cut.glb', cart.subarray(0, 200)), /cut\.glb: is cut off: 200 of \d+ bytes/],
    [
      glb('photo.glb', Buffer.from('ffd8ffe000104a46494600010100000100010000', 'hex')),
      /photo\.glb: is neither GLB nor glTF/,
    ],
    [glb('empty.glb', Buffer.alloc(0)), /empty\.glb: has 0 bytes/],
    [
      glb(
        'split.gltf',
        Buffer.from('{"asset":{"version":"2.0"},"buffers":[{"uri":"split.bin","byteLength":4}]}'),
      ),
      /needs other files \("split\.bin"\); expected them to be given together with it/,
    ],
  ];
  for (const [file, message] of cases) {
    await uploadModel(page, file);
    const alert = page.getByRole('alert').filter({ hasText: file.name });
    await expect(alert).toContainText(message);
    await alert.getByRole('button', { name: 'Close message' }).click();
    await expect(alert).toBeHidden();
  }
  expect(await models()).toBe(before);
  await settled(page);
  expect((await storedShot(request, id)).document.riders).toEqual([]);

  // The desk goes on as before.
  await uploadModel(page, await cartModel('good cart.glb'));
  await expect(page.getByRole('radio', { name: 'G1 Good cart' })).toBeVisible();
});

test('broken SVG files are refused with a reason and change nothing', async ({ page, request }) => {
  const id = await openNewShot(page, 'Bad drawings');
  const before = await storedShot(request, id);
  const cases = [
    {
      file: { ...squareLane, name: 'torn.svg', buffer: Buffer.from('<svg><path d="M0 0') },
      message: /torn\.svg: is not well-formed XML/,
    },
    { file: svgFile('words.svg', '<text>hello</text>'), message: /words\.svg: there is no path in this SVG/ },
    {
      file: svgFile('odd.svg', '<path id="p" d="M0 0 L banana"/>'),
      message:
        /odd\.svg: there is no path in this SVG; .*<path id="p"> in line 1 has path data that cannot be read from "banana" on/,
    },
  ];
  for (const { file, message } of cases) {
    await importPaths(page, file);
    const alert = page.getByRole('alert').filter({ hasText: file.name });
    await expect(alert).toContainText(message);
    await alert.getByRole('button', { name: 'Close message' }).click();
  }
  await settled(page);
  expect(await storedShot(request, id)).toEqual(before);
  await importPaths(page, squareLane);
  await expect(page.getByRole('row', { name: 'square' })).toContainText('40 m');
});

test('a number that cannot be read stays as typed, with what was expected', async ({ page, request }) => {
  const id = await openNewShot(page, 'Bad numbers');
  await importPaths(page, squareLane);
  await page.getByRole('grid', { name: 'Points' }).getByRole('row').nth(1).click();
  const x = page.getByRole('textbox', { name: 'X' });
  await x.fill('far away');
  await x.press('Enter');
  await expect(x).toHaveValue('far away');
  await expect(page.getByText('Expected a number, one with m, cm')).toBeVisible();
  await x.fill('250 cm');
  await x.press('Enter');
  await expect(x).toHaveValue('2.5 m');
  await settled(page);
  expect((await storedShot(request, id)).document.paths[0].points[1].position[0]).toBe(2.5);
});
