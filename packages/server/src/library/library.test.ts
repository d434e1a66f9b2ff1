import { readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';
import { newShot } from '@fleet-rail/core';
import type { Response } from 'express';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { DataSource } from 'typeorm';
import { BinService } from '../bin/bin.service.js';
import { CheckpointsService } from '../checkpoints/checkpoints.service.js';
import { whenGone } from '../http/when-gone.js';
import { ModelsService } from '../models/models.service.js';
import { ShotsService } from '../shots/shots.service.js';
import { TestApp } from '../testing/test-app.js';
import { BackupService } from './backup.service.js';
import { RestoreService } from './restore.service.js';

const DATE = '2026-01-01T00:00:00.000Z';

let app: TestApp;
let shots: ShotsService;
let checkpoints: CheckpointsService;
let models: ModelsService;

const serve = () => {
  shots = app.get(ShotsService);
  checkpoints = app.get(CheckpointsService);
  models = app.get(ModelsService);
};

beforeEach(async () => {
  app = new TestApp();
  await app.start();
  serve();
});
afterEach(() => app.end());

async function glb(name: string): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  document.createScene().addChild(document.createNode(name));
  return new WebIO().writeBinary(document);
}

async function backUp(): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const part of app.get(BackupService).parts()) parts.push(part);
  return Buffer.concat(parts);
}

async function restore(bytes: Uint8Array) {
  const path = join(app.folder, 'backup.zip');
  writeFileSync(path, bytes);
  return app.get(RestoreService).restore(path, 'test');
}

async function onEmptyMachine(): Promise<void> {
  await app.restartEmpty();
  serve();
}

const rows = async (table: string) =>
  ((await app.get(DataSource).query(`SELECT count(*) AS count FROM ${table}`)) as { count: number }[])[0]
    .count;

describe('a backup', () => {
  it('a backup taken in on an empty machine brings everything, and again brings nothing', async () => {
    const model = await models.add([{ name: 'cart.glb', bytes: await glb('cart') }]);
    const worn = { id: 'm', name: 'Cart', source: { asset: model.id } };
    const { id } = await shots.create(undefined, newShot({ name: 'Lane', models: [worn] }));
    await checkpoints.add(id, 'Start');
    await shots.save(id, 1, newShot({ name: 'Lane, later', models: [worn] }));
    const gone = await shots.create('Gone', undefined);
    await shots.delete(gone.id);
    const backup = await backUp();

    await onEmptyMachine();
    expect(await restore(backup)).toEqual({ shots: 2, checkpoints: 1, models: 1, there: 0, refused: [] });
    expect(await shots.open(id)).toMatchObject({ name: 'Lane, later', revision: 2 });
    expect((await shots.listDeleted()).map(({ name }) => name)).toEqual(['Gone']);
    const [kept] = await checkpoints.list(id);
    expect(await checkpoints.restore(id, kept.id, 2)).toMatchObject({ name: 'Lane' });
    expect((await models.open(model.id)).fileName).toBe('cart.glb');

    await onEmptyMachine();
    await restore(backup);
    expect(await restore(backup)).toEqual({ shots: 0, checkpoints: 0, models: 0, there: 4, refused: [] });
  });

  it('what was changed since stays, and the one of the backup comes beside it, once', async () => {
    const { id } = await shots.create('Lane', undefined);
    await checkpoints.add(id, 'Start');
    const backup = await backUp();
    await shots.save(id, 1, newShot({ name: 'Lane, mine' }));
    expect(await restore(backup)).toMatchObject({ shots: 1, checkpoints: 1 });
    expect((await shots.open(id)).name).toBe('Lane, mine');
    expect((await shots.list()).map(({ name }) => name).sort()).toEqual(['Lane, mine', 'Lane, restored']);
    expect(await restore(backup)).toMatchObject({ shots: 0, checkpoints: 0 });
    expect(await shots.list()).toHaveLength(2);
  });

  it('what is no backup is refused, and of a spoilt one all is taken that can be read', async () => {
    await expect(restore(new Uint8Array(40))).rejects.toThrow(/zip cannot be read/);
    await expect(restore(zipSync({ 'a.txt': new Uint8Array(3) }))).rejects.toThrow(
      /expected a zip with library\.json/,
    );
    const { id } = await shots.create('Lane', undefined);
    await shots.create('Brook', undefined);
    const files = unzipSync(await backUp());
    files[`shots/${id}.json`] = new TextEncoder().encode('{"format":"other"}');
    await onEmptyMachine();
    const { shots: taken, refused } = await restore(zipSync(files));
    expect(taken).toBe(1);
    expect(refused).toEqual([expect.stringMatching(/^shot "Lane": /)]);
  });

  it('comes without a model whose file is lost, and says so', async () => {
    const model = await models.add([{ name: 'cart.glb', bytes: await glb('cart') }]);
    const worn = { id: 'm', name: 'Cart', source: { asset: model.id } };
    await shots.create(undefined, newShot({ name: 'Lane', models: [worn] }));
    expect(await app.get(BackupService).missing()).toEqual([]);
    rmSync(join(app.data, 'models'), { recursive: true });
    expect(await app.get(BackupService).missing()).toEqual([
      { id: model.id, fileName: 'cart.glb', usedBy: ['"Lane"'] },
    ]);
    const files = unzipSync(await backUp());
    expect(Object.keys(files).filter((name) => name.startsWith('models/'))).toEqual([]);
    const index = JSON.parse(Buffer.from(files['library.json']).toString()) as { missing: string[] };
    expect(index.missing).toEqual(['The model file cart.glb is missing.']);
    await expect(models.fileOf(model.id)).rejects.toThrow('cart.glb is missing from the data folder');
    // Uploaded again it is back where it was.
    await models.add([{ name: 'cart.glb', bytes: await glb('cart') }]);
    expect(await app.get(BackupService).missing()).toEqual([]);
  });

  it('comes with a broken checkpoint named, and all others whole', async () => {
    const path = { id: 'p', name: 'P', points: [] };
    const { id } = await shots.create(undefined, newShot({ name: 'Lane', paths: [path] }));
    const broken = await checkpoints.add(id, 'Broken');
    await shots.save(id, 1, newShot({ name: 'Lane' }));
    await checkpoints.add(id, 'Whole');
    await app.get(DataSource).query('DELETE FROM piece');
    const files = unzipSync(await backUp());
    expect(Buffer.from(files[`checkpoints/${broken.id}.json`]).toString()).toBe('null');
    await onEmptyMachine();
    expect(await restore(zipSync(files))).toMatchObject({
      shots: 1,
      checkpoints: 1,
      refused: [expect.stringMatching(/^checkpoint "Broken": /)],
    });
  });

  /** A backup of many small shots. */
  const manyShots = () => {
    const ids = Array.from({ length: 500 }, (_, i) => `s${i}`);
    const document = strToU8(JSON.stringify(newShot({ name: 'A' })));
    const dated = { name: 'A', revision: 1, createdAt: DATE, updatedAt: DATE, deletedAt: null };
    const index = {
      format: 'fleet-rail-library',
      version: 1,
      shots: ids.map((id) => ({ ...dated, id })),
      checkpoints: [],
      models: [],
    };
    const files = Object.fromEntries(ids.map((id) => [`shots/${id}.json`, document]));
    return zipSync({ 'library.json': strToU8(JSON.stringify(index)), ...files });
  };

  it('that is cancelled changes nothing', async () => {
    const waiting = restore(manyShots());
    const watch = setInterval(() => {
      if ((app.get(RestoreService).progressOf('test')?.done ?? 0) > 0)
        expect(app.get(RestoreService).cancel('test')).toBe(true);
    }, 1);
    await expect(waiting).rejects.toThrow('The restore was cancelled. Nothing was changed.');
    clearInterval(watch);
    expect([await rows('shot'), readdirSync(join(app.data, 'staging'))]).toEqual([0, []]);
  });

  it('that is cancelled before its file has come, or by who has gone since, changes nothing', async () => {
    expect(app.get(RestoreService).cancel('test')).toBe(true);
    await expect(restore(manyShots())).rejects.toThrow('cancelled');
    const gone = whenGone({ destroyed: true } as Response);
    const path = join(app.folder, 'backup.zip');
    await expect(app.get(RestoreService).restore(path, 'other', gone)).rejects.toThrow('cancelled');
    expect(await rows('shot')).toBe(0);
  });

  it('that is written is not called cancelled', async () => {
    await restore(manyShots());
    expect(app.get(RestoreService).cancel('test')).toBe(false);
    expect(await rows('shot')).toBe(500);
  });
});

describe('the bin', () => {
  const withModel = (name: string, asset: string) =>
    newShot({ name, models: [{ id: 'm', name: 'Cart', source: { asset } }] });

  it('emptied frees shots, checkpoints, pieces and models that nothing else uses', async () => {
    const own = await models.add([{ name: 'own.glb', bytes: await glb('own') }]);
    const shared = await models.add([{ name: 'shared.glb', bytes: await glb('shared') }]);
    const unused = await models.add([{ name: 'unused.glb', bytes: await glb('unused') }]);
    const point = (x: number) => ({ position: [x, Math.random(), 0] as [number, number, number] });
    const paths = [{ id: 'p', name: 'P', points: Array.from({ length: 900 }, (_, i) => point(i)) }];
    const gone = await shots.create(undefined, { ...withModel('Gone', own.id), paths });
    for (let n = 1; n <= 120; n++) {
      const changed = {
        ...withModel('Gone', n < 3 ? shared.id : own.id),
        paths: [{ ...paths[0], points: [point(n), point(0)] }],
      };
      await shots.save(gone.id, n, newShot(changed));
      await checkpoints.add(gone.id, `${n}`);
    }
    const kept = await shots.create(undefined, withModel('Kept', shared.id));
    const checkpoint = await checkpoints.add(kept.id, 'Kept');
    await shots.delete(gone.id);
    await app.get(DataSource).query('PRAGMA wal_checkpoint(TRUNCATE)');
    const file = join(app.data, 'fleet-rail.sqlite');
    const before = statSync(file).size;

    const emptied = await app.get(BinService).emptyAll();
    expect(emptied).toMatchObject({ shots: 1, checkpoints: 120, models: 1 });
    expect(emptied.bytes).toBeGreaterThan(0);
    expect([await rows('shot'), await rows('checkpoint'), await rows('piece')]).toEqual([1, 1, 0]);
    expect((await models.list()).map(({ id }) => id).sort()).toEqual([shared.id, unused.id].sort());
    expect(readdirSync(join(app.data, 'models'))).toHaveLength(2);
    expect(statSync(file).size).toBeLessThan(before / 2);
    expect(await app.get(DataSource).query('PRAGMA freelist_count')).toEqual([{ freelist_count: 0 }]);
    await expect(shots.undelete(gone.id)).rejects.toMatchObject({ status: 404 });
    expect(await checkpoints.restore(kept.id, checkpoint.id, 1)).toMatchObject({ name: 'Kept' });
  });

  it('emptied of one shot leaves the others, and refuses one that is not in it', async () => {
    const [one, other, alive] = [
      await shots.create('One', undefined),
      await shots.create('Other', undefined),
      await shots.create('Alive', undefined),
    ];
    await shots.delete(one.id);
    await shots.delete(other.id);
    expect(await app.get(BinService).emptyOne(one.id)).toMatchObject({ shots: 1 });
    expect((await shots.listDeleted()).map(({ name }) => name)).toEqual(['Other']);
    await expect(app.get(BinService).emptyOne(alive.id)).rejects.toMatchObject({ status: 404 });
    expect((await shots.list()).map(({ name }) => name)).toEqual(['Alive']);
  });

  it('loses by itself what was deleted 30 days ago, and nothing younger', async () => {
    const [old, young] = [await shots.create('Old', undefined), await shots.create('Young', undefined)];
    await shots.delete(old.id);
    await shots.delete(young.id);
    const [{ deleteAfter }] = await shots.listDeleted();
    expect((Date.parse(deleteAfter ?? '') - Date.now()) / 86_400_000).toBeCloseTo(30, 2);
    const past = new Date(Date.now() - 1000).toISOString();
    await app.get(DataSource).query('UPDATE shot SET delete_after = ? WHERE id = ?', [past, old.id]);
    await app.restart();
    serve();
    while ((await rows('shot')) > 1) await new Promise((resolve) => setImmediate(resolve));
    expect((await shots.listDeleted()).map(({ name }) => name)).toEqual(['Young']);
  });
});
