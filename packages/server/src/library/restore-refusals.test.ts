import { randomBytes } from 'node:crypto';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';
import { newShot } from '@fleet-rail/core';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { DataSource } from 'typeorm';
import { TestApp } from '../testing/test-app.js';
import { RestoreService } from './restore.service.js';

const app = new TestApp();
beforeAll(() => app.start());
afterEach(() => app.get(DataSource).query('DELETE FROM shot'));
afterAll(() => app.end());

async function restore(bytes: Uint8Array) {
  const path = join(app.folder, 'backup.zip');
  writeFileSync(path, bytes);
  return app.get(RestoreService).restore(path, 'test');
}

const rows = async (table: string) =>
  ((await app.get(DataSource).query(`SELECT count(*) AS count FROM ${table}`)) as { count: number }[])[0]
    .count;

async function cart(): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  document.createScene().addChild(document.createNode('cart'));
  return new WebIO().writeBinary(document);
}

describe('a backup that is not one', () => {
  const entry = { id: 'a', name: 'A', revision: 1, createdAt: '2026-01-01T00:00:00.000Z' };
  const shot = { ...entry, updatedAt: entry.createdAt, deletedAt: null };
  const model = { id: 'm', name: 'M', fileName: 'm.glb', sha256: '0'.repeat(64), shipped: false };
  const zipped = (index: object, files: Zippable = {}) =>
    zipSync({
      'library.json': strToU8(
        JSON.stringify({
          format: 'fleet-rail-library',
          version: 1,
          shots: [],
          checkpoints: [],
          models: [],
          ...index,
        }),
      ),
      'shots/a.json': strToU8(JSON.stringify(newShot({ name: 'A' }))),
      ...files,
    });
  const refused = async (bytes: Uint8Array) => {
    const problem: unknown = await restore(bytes).then(
      () => null,
      (error: unknown) => (error as Error).message,
    );
    expect([await rows('shot'), await rows('checkpoint'), await rows('model')]).toEqual([0, 0, 0]);
    expect(existsSync(join(app.data, 'models')) ? readdirSync(join(app.data, 'models')) : []).toEqual([]);
    return problem;
  };

  it.each([
    ['a revision below nothing', { shots: [{ ...shot, revision: -5 }] }, 'shots[0].revision: found -5;'],
    [
      'a revision without end',
      { shots: [{ ...shot, revision: 2 ** 53 }] },
      'shots[0].revision: found 9007199254740992;',
    ],
    [
      'a date that is a word',
      { shots: [{ ...shot, createdAt: 'yesterday' }] },
      'shots[0].createdAt: found "yesterday";',
    ],
    ['a folder for an id', { shots: [shot, { ...shot, id: '../b' }] }, 'shots[1].id: found "../b";'],
    ['a shot twice', { shots: [shot, shot] }, 'shots[1].id: "a" is there twice.'],
    [
      'a checkpoint of no shot',
      { shots: [shot], checkpoints: [{ ...entry, id: 'c', shotId: 'gone' }] },
      'checkpoints[0].shotId: found "gone"; expected a shot of this backup.',
    ],
    [
      'a model without a digest',
      { shots: [shot], models: [{ ...model, sha256: 'x' }] },
      'models[0].sha256: found "x";',
    ],
    ['no list of models', { shots: [shot], models: null }, 'models: found null;'],
    ['another version', { shots: [shot], version: 2 }, 'version: found 2;'],
  ])('with %s changes nothing', async (_, index, problem) => {
    expect(await refused(zipped(index))).toContain(`library.json: ${problem}`);
  });

  it('with a file that unpacks to over a hundred times its size is refused, whatever lies beside it', async () => {
    const padding = randomBytes(2 ** 20);
    const bomb = zipped(
      { shots: [shot] },
      { 'shots/a.json': [new Uint8Array(65 * 2 ** 20), { level: 1 }], padding: [padding, { level: 0 }] },
    );
    expect(bomb.length).toBeLessThan(2 ** 21);
    expect(await refused(bomb)).toContain('unpacks to over 100 times its size');
  });

  it('is not told by size alone: a model that was unpacked may be larger than what is uploaded', async () => {
    const large = zipped({ shots: [shot] }, { 'models/large': [new Uint8Array(70 * 2 ** 20), { level: 0 }] });
    expect(await restore(large)).toMatchObject({ shots: 1, refused: [] });
  });

  it('that unpacks to over a hundred times its size is refused before it is unpacked', async () => {
    const files = Object.fromEntries(
      ['b', 'c'].map((id) => [`shots/${id}.json`, [new Uint8Array(40 * 2 ** 20), { level: 1 }] as const]),
    );
    expect(await refused(zipped({ shots: [shot] }, files as unknown as Zippable))).toContain(
      'unpacks to over 100 times its size',
    );
  });

  it('whose table lies about a size brings what is whole, and says what is not', async () => {
    const bytes = Buffer.from(
      zipped({ shots: [shot, { ...shot, id: 'b' }] }, { 'shots/b.json': new Uint8Array(5000) }),
    );
    // The size in the table is the last mention of the name, less 22 bytes.
    bytes.writeUInt32LE(4000, bytes.lastIndexOf('shots/b.json') - 22);
    expect(await restore(bytes)).toMatchObject({ shots: 1, refused: [expect.stringMatching(/^shot "A": /)] });
  });

  it('with a model whose bytes were changed brings the rest', async () => {
    const bytes = zipped({ shots: [shot], models: [model] }, { [`models/${model.sha256}`]: await cart() });
    expect(await restore(bytes)).toMatchObject({
      shots: 1,
      models: 0,
      refused: [expect.stringContaining('model m.glb: is not what was backed up')],
    });
  });
});
