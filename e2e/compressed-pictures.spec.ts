import { readFileSync } from 'node:fs';
import { Document, WebIO } from '@gltf-transform/core';
import { KHRTextureBasisu } from '@gltf-transform/extensions';
import type { Page } from '@playwright/test';
import { encodeToKTX2 } from 'ktx2-encoder';
import { PNG } from 'pngjs';
import { attachTo, goTo, importPaths, openNewShot, settled, uploadModel } from './support/desk.js';
import { straightLane } from './support/files.js';
import { expect, test } from './support/test.js';

test.use({ stage: 'full' });

const io = () => new WebIO().registerExtensions([KHRTextureBasisu]);

/** A picture of one red, as a KTX2 file of either kind. */
async function redPicture(isUASTC: boolean): Promise<Uint8Array<ArrayBuffer>> {
  const data = new Uint8Array(16 * 16 * 4);
  for (let i = 0; i < data.length; i += 4) data.set([230, 20, 20, 255], i);
  const imageDecoder = () => Promise.resolve({ width: 16, height: 16, data });
  const bytes = await encodeToKTX2(data, { isUASTC, generateMipmap: true, isKTX2File: true, imageDecoder });
  return new Uint8Array(bytes);
}

/** A board, 4 m wide and 3 m high, seen from both sides, that has its colour from a picture alone. */
async function board(picture: Uint8Array<ArrayBuffer>): Promise<Buffer> {
  const model = new Document();
  const buffer = model.createBuffer();
  model.createExtension(KHRTextureBasisu).setRequired(true);
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', values: Float32Array | Uint16Array) =>
    model
      .createAccessor()
      .setType(type)
      .setArray(values as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const places = Float32Array.from([-2, 0, 0, 2, 0, 0, 2, 3, 0, -2, 3, 0]);
  const material = model
    .createMaterial('red')
    .setDoubleSided(true)
    .setRoughnessFactor(1)
    .setMetallicFactor(0)
    .setBaseColorTexture(model.createTexture('red').setImage(picture).setMimeType('image/ktx2'));
  const primitive = model
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', places))
    .setAttribute('TEXCOORD_0', accessor('VEC2', Float32Array.from([0, 1, 1, 1, 1, 0, 0, 0])))
    .setIndices(accessor('SCALAR', Uint16Array.from([0, 1, 2, 0, 2, 3])))
    .setMaterial(material);
  model.createScene().addChild(model.createNode('board').setMesh(model.createMesh().addPrimitive(primitive)));
  return Buffer.from(await io().writeBinary(model));
}

/** How many pixels of a picture are of that red, in whatever light. */
function redPixels(png: Buffer): number {
  const { data } = PNG.sync.read(png);
  let count = 0;
  for (let i = 0; i < data.length; i += 4)
    if (data[i] > 60 && data[i] > 3 * data[i + 1] && data[i] > 3 * data[i + 2]) count++;
  return count;
}

const stage = (page: Page) => page.locator('canvas').first().screenshot();

for (const [kind, isUASTC] of [
  ['UASTC', true],
  ['ETC1S', false],
] as const)
  test(`a KTX2 picture (${kind}) is drawn on the stage, and given out byte for byte`, async ({
    page,
    request,
  }) => {
    const problems: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') problems.push(message.text());
    });
    const id = await openNewShot(page, `Scarlet ${kind}`);
    await importPaths(page, straightLane);
    const picture = await redPicture(isUASTC);
    await uploadModel(page, {
      name: `scarlet-${kind}.glb`,
      mimeType: 'model/gltf-binary',
      buffer: await board(picture),
    });
    await attachTo(page, 'straight');
    await settled(page);
    await page.getByRole('button', { name: 'Zoom to' }).click();
    await expect.poll(async () => redPixels(await stage(page))).toBeGreaterThan(1_000);
    // Pictures are drawn in a thread of their own, which reads it by itself.
    await goTo(page, 'Hand over');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Make the picture', exact: true }).click();
    expect(redPixels(readFileSync(await (await download).path()))).toBeGreaterThan(1_000);
    expect(problems).toEqual([]);
    // For that one worker may make functions from text; the page may not.
    expect((await request.get('/')).headers()['content-security-policy']).not.toContain("'unsafe-eval'");
    const glb = await (await request.get(`/api/shots/${id}/files/glb`)).body();
    const [texture] = (await io().readBinary(new Uint8Array(glb))).getRoot().listTextures();
    expect(texture.getMimeType()).toBe('image/ktx2');
    expect(Buffer.from(texture.getImage() ?? [])).toEqual(Buffer.from(picture));
  });
