import { readFileSync } from 'node:fs';
import { compiledPathOf, PathError, type ShotPath } from '@fleet-rail/core';
import { Document, WebIO } from '@gltf-transform/core';
import type { Page } from '@playwright/test';
import { strFromU8, unzipSync, zipSync } from 'fflate';
import {
  attachTo,
  chooseFile,
  fill,
  goTo,
  importPaths,
  openNewShot,
  settled,
  storedShot,
  uploadModel,
} from './support/desk.js';
import { straightLane, svgFile, type TestFile } from './support/files.js';
import { expect, test } from './support/test.js';

const DRAWING = svgFile(
  'valley.svg',
  '<rect id="page" width="100" height="60" fill="#eee"/>' +
    '<g fill="none" stroke="#000"><path id="Lane" d="M0 0 H60"/><path id="Brook" d="M0 10 H30"/><path id="Wall" d="M0 20 H15"/></g>',
);

const lengthOf = (path: ShotPath): number => {
  const curve = compiledPathOf(path);
  if (curve instanceof PathError) throw curve;
  return curve.length;
};

/** A cart whose four wheels have one name, its rear axle at its origin, at a number of units a metre. */
function cart(unitsAMetre = 1): Document {
  const model = new Document();
  const buffer = model.createBuffer();
  const mesh = (name: string, places: number[][], faces: number[]) => {
    const positions = Float32Array.from(places.flat(), (value) => value * unitsAMetre);
    return model.createMesh(name).addPrimitive(
      model
        .createPrimitive()
        .setAttribute(
          'POSITION',
          model.createAccessor().setType('VEC3').setArray(positions).setBuffer(buffer),
        )
        .setIndices(
          model.createAccessor().setType('SCALAR').setArray(Uint16Array.from(faces)).setBuffer(buffer),
        ),
    );
  };
  const box = [-0.8, 0.8].flatMap((x) => [0.5, 1.2].flatMap((y) => [-0.5, 2.5].map((z) => [x, y, z])));
  const sides = [0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4];
  const rim = Array.from({ length: 24 }, (_, i) => [
    0.4 * Math.cos((i * Math.PI) / 12),
    0.4 * Math.sin((i * Math.PI) / 12),
  ]);
  const tyre = [-0.1, 0.1].flatMap((x) => rim.map(([y, z]) => [x, y, z]));
  const tread = rim.flatMap((_, i) => {
    const j = (i + 1) % 24;
    return [i, j, 24 + i, j, 24 + j, 24 + i];
  });
  const body = model.createNode('body').setMesh(mesh('body', box, sides));
  const wheel = mesh('tyre', tyre, tread);
  for (const [x, z] of [
    [0.8, 2],
    [-0.8, 2],
    [0.8, 0],
    [-0.8, 0],
  ])
    body.addChild(
      model
        .createNode('wheel')
        .setMesh(wheel)
        .setTranslation([x * unitsAMetre, 0.4 * unitsAMetre, z * unitsAMetre]),
    );
  model.createScene().addChild(body);
  return model;
}

async function glbFile(name: string, model: Document): Promise<TestFile> {
  const buffer = Buffer.from(await new WebIO().writeBinary(model));
  return { name, mimeType: 'model/gltf-binary', buffer };
}

const downloaded = async (page: Page, button: string): Promise<{ name: string; bytes: Uint8Array }> => {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).click();
  const download = await waiting;
  return { name: download.suggestedFilename(), bytes: new Uint8Array(readFileSync(await download.path())) };
};

test('of a drawing those paths are taken that are chosen, as large as they are made', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Valley');
  await chooseFile(page, 'Import a file', DRAWING);
  const list = page.getByRole('grid', { name: 'Paths of the file' });
  await expect(list.getByRole('row')).toHaveCount(4);
  // The background comes last and is not among those that are meant.
  await expect(list.getByRole('row').last()).toContainText('page');
  await expect(page.getByRole('button', { name: 'Add 3 paths' })).toBeVisible();
  await list.getByRole('row', { name: 'Brook' }).click();
  await fill(page, 'The longest', '120');
  await expect(list.getByRole('row', { name: 'Wall' })).toContainText('30 m');
  // By its corner it is grown by a twentieth, and shrunk again.
  const corner = page.getByRole('slider', { name: 'Size of what is imported' });
  await corner.press('ArrowUp');
  await expect(page.getByRole('textbox', { name: 'The longest' })).toHaveValue('126 m');
  await page.getByRole('button', { name: 'Add 2 paths' }).click();
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.paths.map(({ name }) => name)).toEqual(['Lane', 'Wall']);
  expect(document.paths.map(lengthOf)).toEqual([126, 31.5].map((length) => expect.closeTo(length, 6)));
  await page.getByRole('button', { name: /^Undo/ }).click();
  await settled(page);
  expect((await storedShot(request, id)).document.paths).toEqual([]);
});

test('a path is given out and comes back as the same curve', async ({ page, request }) => {
  const id = await openNewShot(page, 'There and back');
  await importPaths(page, svgFile('bend.svg', '<path id="Bend" d="M0 0 C10 0 20 5 20 15 S 0 40 -10 30"/>'));
  await page.getByRole('button', { name: 'Export path' }).click();
  const { name, bytes } = await downloaded(page, 'Download Bend');
  expect(name).toBe('Bend.svg');
  await importPaths(page, { name: 'again.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(bytes) });
  await settled(page);
  const [one, other] = (await storedShot(request, id)).document.paths;
  expect(other.basis).toBe('bezier');
  expect(lengthOf(other)).toBeCloseTo(lengthOf(one), 9);
  for (const kind of ['obj', 'csv', 'glb'])
    expect((await request.get(`/api/shots/${id}/files/path/${one.id}?kind=${kind}`)).status()).toBe(200);
  expect((await request.get(`/api/shots/${id}/files/path/${one.id}?kind=pdf`)).status()).toBe(400);
});

test('a timed table says what it becomes before it does', async ({ page, request }) => {
  const id = await openNewShot(page, 'Timed');
  const rows = 'timecode;x;z\n00:00:00:00;0,0;0\n00:00:02:12;0,0;10,5\n';
  await chooseFile(page, 'Import a file', {
    name: 'walk.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(rows),
  });
  await expect(page.getByText('Its 2 rows are timed by timecode, frames 1 to 61')).toBeVisible();
  expect((await storedShot(request, id)).document.paths).toEqual([]);
  await page.getByRole('button', { name: 'Add 1 path' }).click();
  await settled(page);
  const [rider] = (await storedShot(request, id)).document.riders;
  expect(rider.attachment?.pace.keys.map(({ frame, value }) => [frame, value])).toEqual([
    [1, 0],
    [61, expect.closeTo(10.5, 9)],
  ]);
});

test('a model in several files, its wheels called alike, is taken in, rigged, saved and baked', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Alike');
  await importPaths(page, straightLane);
  const { json, resources } = await new WebIO().writeJSON(cart());
  const files = [
    { name: 'cart.gltf', mimeType: 'model/gltf+json', buffer: Buffer.from(JSON.stringify(json)) },
    ...Object.entries(resources).map(([name, bytes]) => ({
      name,
      mimeType: 'application/octet-stream',
      buffer: Buffer.from(bytes),
    })),
  ];
  await goTo(page, 'Attach');
  // Alone it says what is missing, and nothing is added.
  await chooseFile(page, 'Upload a model', files[0]);
  await expect(page.getByText(/cart\.gltf: needs other files \(".*\.bin"\)/)).toBeVisible();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Upload a model' }).click();
  await (await chooser).setFiles(files);
  await page.keyboard.press('Escape');
  await attachTo(page, 'straight');
  await goTo(page, 'Contact');
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders[0].wheels.map(({ node }) => node).sort()).toEqual([
    'wheel',
    'wheel 2',
    'wheel 3',
    'wheel 4',
  ]);
  const csv = await (await request.get(`/api/shots/${id}/files/csv?from=2&to=3`)).text();
  const parts = csv
    .trim()
    .split('\n')
    .slice(1)
    .map((row) => row.split(','));
  expect(parts.filter(([frame, , , part]) => frame === '2' && /^wheel( \d)?$/.test(part))).toHaveLength(4);
  const glb = await (await request.get(`/api/shots/${id}/files/glb`)).body();
  const root = (await new WebIO().readBinary(new Uint8Array(glb))).getRoot();
  const turned = root
    .listAnimations()[0]
    .listChannels()
    .filter((one) => one.getTargetNode()?.getMesh()?.getName() === 'tyre');
  // The file's own name is theirs again, and each turns.
  expect(turned.map((one) => one.getTargetNode()?.getName())).toEqual(Array(turned.length).fill('wheel'));
  expect(new Set(turned.map((one) => one.getTargetNode())).size).toBe(4);
});

test('a model in another unit is told so and put right with one click', async ({ page, request }) => {
  const id = await openNewShot(page, 'Units');
  await uploadModel(page, await glbFile('great.glb', cart(1000)));
  await expect(page.getByText(/Unusual size\. In millimetres it would be 1\.8 × 1\.2 × 3/)).toBeVisible();
  await page.getByRole('button', { name: 'Use millimetres' }).click();
  await expect(page.getByText('1.8 × 1.2 × 3 m: wide, high, long.')).toBeVisible();
  await settled(page);
  const { document } = await storedShot(request, id);
  const worn = document.models.find(({ id: own }) => own === document.riders[0].model);
  const model = (await (await request.get(`/api/models/${worn?.source.asset}`)).json()) as {
    facts: { high: number[]; placing: { scale: number } };
  };
  expect(model.facts.placing.scale).toBe(0.001);
  expect(model.facts.high[1]).toBeCloseTo(1.2, 6);
});

test('a mesh among the paths offers to be a model, and files are dropped anywhere', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Dropped');
  const text = 'o Plate\nv 0 0 0\nv 2 0 0\nv 2 0 3\nf 1 2 3\n';
  await chooseFile(page, 'Import a file', {
    name: 'plate.obj',
    mimeType: 'text/plain',
    buffer: Buffer.from(text),
  });
  await page.getByRole('button', { name: 'Add it as a model' }).click();
  await expect(page.getByText('Plate is added.')).toBeVisible();
  const drop = async (...files: readonly (readonly [name: string, bytes: Uint8Array])[]) => {
    const transfer = await page.evaluateHandle(
      (list) => {
        const data = new DataTransfer();
        for (const [name, bytes] of list) data.items.add(new File([Uint8Array.from(bytes)], name));
        return data;
      },
      files.map(([name, bytes]) => [name, [...bytes]] as const),
    );
    await page.dispatchEvent('body', 'drop', { dataTransfer: transfer });
  };
  await drop(['straight.svg', straightLane.buffer]);
  await expect(page.getByText('straight.svg: 1 path added.')).toBeVisible();
  const glb = await new WebIO().writeBinary(cart());
  await drop(['wain.zip', zipSync({ 'wain/wain.glb': glb })]);
  await expect(page.getByText('Wain is added.')).toBeVisible();
  await drop(['notes.txt', new Uint8Array([65])]);
  await expect(page.getByText(/notes\.txt: found nothing to add; expected a model/)).toBeVisible();
  await page.getByRole('button', { name: 'Close message' }).last().click();
  // Of several files each is added by itself, and all refusals are in one notice.
  await drop(
    ['gig.glb', glb],
    ['torn.glb', glb.subarray(0, 500)],
    ['empty.svg', new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>')],
    ['bend.svg', svgFile('bend.svg', '<path id="bend" d="M0 0 C10 0 20 5 20 15"/>').buffer],
    ['dray.glb', glb],
  );
  const told = page.getByRole('alert').filter({ hasText: '2 of 5 were skipped:' });
  await expect(told.getByRole('listitem')).toHaveText([/^torn\.glb: /, /^empty\.svg: /]);
  await settled(page);
  const { document } = await storedShot(request, id);
  expect(document.riders.map(({ name }) => name)).toEqual(['Plate', 'Wain', 'Gig', 'Dray']);
  expect(document.paths.map(({ name }) => name)).toEqual(['straight', 'bend']);
});

test('what is given out is chosen, told before, and comes as USD and tables too', async ({
  page,
  request,
}) => {
  const id = await openNewShot(page, 'Given');
  await importPaths(page, straightLane);
  await uploadModel(page, await glbFile('cart.glb', cart()));
  // It slides, so that all of it is one straight.
  await page.getByRole('button', { name: /^Remove the wheels of / }).click();
  await attachTo(page, 'straight');
  await page.getByRole('button', { name: 'Loop', exact: true }).click();
  await goTo(page, 'Hand over');
  await fill(page, 'From frame', '11');
  await fill(page, 'To frame', '20');
  const usd = await downloaded(page, 'Download USD');
  expect(usd.name).toBe('Given.usda');
  const layer = strFromU8(usd.bytes);
  // Ten frames, and in a loop the key that closes it.
  expect(layer).toMatch(/startTimeCode = 11\n\s*endTimeCode = 21\n/);
  expect(layer).toContain('bool closingKey = 1');
  const usdz = await downloaded(page, 'USDZ');
  expect(Object.keys(unzipSync(usdz.bytes))).toEqual(['shot.usda']);
  const tables = await downloaded(page, 'With tables');
  const names = Object.keys(unzipSync(tables.bytes));
  expect(names).toEqual(['poses.csv', 'riders.csv']);
  expect(strFromU8(unzipSync(tables.bytes)['poses.csv']).trim().split('\n')).toHaveLength(11);
  await page.getByText('Lines with rate and units').click();
  const csv = strFromU8((await downloaded(page, 'Download CSV')).bytes);
  expect(csv.split('\n').slice(0, 2)).toEqual(['# fps 24', '# frames 11 to 20, loop']);
  await fill(page, 'Tolerance', '1 mm');
  // Steady and straight: the first, the last and the closing key of each channel stay.
  await expect(page.getByText(/: \d+ of 22 keys kept\. Position within/)).toBeVisible();
  const told = (await (
    await request.get(`/api/shots/${id}/files/about?from=11&to=20&within=0.001`)
  ).json()) as {
    keys: number;
    metres: number;
  };
  expect(told.keys).toBeLessThanOrEqual(4);
  expect(told.metres).toBeLessThan(0.001);
});

test('everything is backed up as one file, and taken in beside what is there', async ({ page, request }) => {
  await openNewShot(page, 'Kept safe');
  await page.goto('/');
  const { name, bytes } = await downloaded(page, 'Back up everything');
  expect(name).toMatch(/^fleet-rail-\d{4}-\d\d-\d\d\.zip$/);
  const files = unzipSync(bytes);
  const index = JSON.parse(strFromU8(files['library.json'])) as { shots: { name: string }[] };
  expect(index.shots.map((shot) => shot.name)).toContain('Kept safe');
  const before = ((await (await request.get('/api/shots')).json()) as unknown[]).length;
  const zip = { name, mimeType: 'application/zip', buffer: Buffer.from(bytes) };
  await chooseFile(page, 'Restore a backup', zip);
  await expect(
    page.getByText(/Restored 0 shots, 0 checkpoints, 0 models\. \d+ more were here already\./),
  ).toBeVisible();
  expect(((await (await request.get('/api/shots')).json()) as unknown[]).length).toBe(before);
  await chooseFile(page, 'Restore a backup', { ...zip, buffer: Buffer.from('nothing') });
  await expect(page.getByText('This zip cannot be read; expected a backup.')).toBeVisible();
});

test('a nose that is put right takes the steering with it', async ({ page, request }) => {
  const id = await openNewShot(page, 'Nose');
  await importPaths(page, straightLane);
  await uploadModel(page, await glbFile('blank.glb', cart()));
  await page.keyboard.press('Escape');
  await attachTo(page, 'straight');
  await goTo(page, 'Contact');
  await goTo(page, 'Facing');
  // Nothing in it distinguishes front from back.
  await expect(page.getByText('Front or back is unclear. Please choose.')).toBeVisible();
  await page.getByRole('button', { name: 'Nose −Z' }).click();
  await settled(page);
  const { document } = await storedShot(request, id);
  const [rider] = document.riders;
  expect(rider.attachment?.facing.forward).toBe('-z');
  for (const { centre, steers } of rider.wheels) expect(steers).toBe(centre[2] < 1);
  expect(rider.chassis).toMatchObject({ frontAxle: expect.closeTo(0, 3), rearAxle: expect.closeTo(-2, 3) });
});
