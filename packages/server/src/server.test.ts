import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';
import Database from 'better-sqlite3';
import { newShot, writeShotText, type Shot } from '@fleet-rail/core';
import { DataSource } from 'typeorm';
import { ModelsService } from './models/models.service.js';
import { ShotsService } from './shots/shots.service.js';
import { TestApp } from './testing/test-app.js';
import { CheckpointsService } from './checkpoints/checkpoints.service.js';

let app: TestApp;
let folder: string;
let shots: ShotsService;
let checkpoints: CheckpointsService;
let models: ModelsService;

async function glb(name: string): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  document.createScene().addChild(document.createNode(name));
  return new WebIO().writeBinary(document);
}

async function start(): Promise<void> {
  await app.start();
  serve();
}

function serve(): void {
  shots = app.get(ShotsService);
  checkpoints = app.get(CheckpointsService);
  models = app.get(ModelsService);
}

beforeEach(() => {
  app = new TestApp();
  folder = app.folder;
});
afterEach(() => app.end());

describe('shots', () => {
  beforeEach(start);
  const named = (name: string) => newShot({ name });

  it('a save raises the revision, and a stale one changes nothing', async () => {
    const { id } = await shots.create('First', undefined);
    expect(await shots.save(id, 1, named('Second'))).toMatchObject({ revision: 2, name: 'Second' });
    await expect(shots.save(id, 1, named('Stale'))).rejects.toMatchObject({ status: 409 });
    expect(await shots.open(id)).toMatchObject({ revision: 2, name: 'Second' });
  });

  it('a save whose answer was lost is known when it is sent again, and only then', async () => {
    const { id } = await shots.create('First', undefined);
    const [mine, other] = ['6f1c1a7e-0000-4000-8000-000000000001', '6f1c1a7e-0000-4000-8000-000000000002'];
    const saved = await shots.save(id, 1, named('Mine'), mine);
    expect(await shots.save(id, 1, named('Mine'), mine)).toEqual(saved);
    expect(await shots.open(id)).toMatchObject({ revision: 2, name: 'Mine', save: mine });
    await expect(shots.save(id, 1, named('Other'), other)).rejects.toMatchObject({ status: 409 });
    await shots.save(id, 2, named('Later'), other);
    await expect(shots.save(id, 1, named('Mine'), mine)).rejects.toMatchObject({ status: 409 });
  });

  it('a document that an earlier version saved is opened with defaults for what is new', async () => {
    const path = { id: 'p', name: 'P', points: [] };
    const full = newShot({
      name: 'Old',
      paths: [path],
      riders: [{ id: 'r', name: 'R', attachment: { path: 'p' } }],
    });
    const { id } = await shots.create(undefined, full);
    await app.get(DataSource).query(
      `UPDATE shot SET document = json_remove(document, '$.cuts', '$.riders[0].chassis',
        '$.riders[0].attachment.influence', '$.riders[0].attachment.facing.aim') WHERE id = ?`,
      [id],
    );
    expect((await shots.open(id)).document).toEqual(full);
    expect((await shots.duplicate(id)).document).toMatchObject({ cuts: [], riders: full.riders });
  });

  it('rows of version 1 are opened, duplicated and brought back in the latest version', async () => {
    const head = { name: 'Old', paths: [{ id: 'p', name: 'P', points: [] }] };
    const full = newShot({
      ...head,
      riders: [
        { id: 'r', name: 'R', attachment: { path: 'p' } },
        { id: 's', name: 'S', attachment: { path: 'p', coupledTo: { rider: 'r', gap: 2 } } },
      ],
    });
    const old = {
      format: full.format,
      version: 1,
      ...head,
      riders: [
        { id: 'r', name: 'R', hitch: { path: 'p' } },
        { id: 's', name: 'S', hitch: { path: 'p', follows: { rider: 'r', gap: 2 } } },
      ],
    };
    const { id } = await shots.create('New', undefined);
    const kept = await checkpoints.keep(id, 'Before', { shot: old as unknown as Shot, revision: 1 });
    expect((await checkpoints.restore(id, kept.id, 1)).document).toEqual(full);
    await app.get(DataSource).query('UPDATE shot SET document = ? WHERE id = ?', [JSON.stringify(old), id]);
    expect((await shots.open(id)).document).toEqual(full);
    expect((await shots.duplicate(id)).document).toMatchObject({ version: 2, riders: full.riders });
  });

  it('of many saves at once on one revision exactly one is taken', async () => {
    const { id } = await shots.create('Contested', undefined);
    const results = await Promise.allSettled(
      Array.from({ length: 8 }, (_, i) => shots.save(id, 1, named(`Save ${i}`))),
    );
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect((await shots.open(id)).revision).toBe(2);
  });

  it('a document that is refused leaves the shot as it was', async () => {
    const { id } = await shots.create('Whole', undefined);
    await expect(shots.save(id, 1, { ...named('Bad'), fps: -1 })).rejects.toThrow(/fps: found -1/);
    expect(await shots.open(id)).toMatchObject({ revision: 1, name: 'Whole' });
  });

  it('a shot tells how often it was saved without its document, until it is deleted', async () => {
    const { id } = await shots.create('Watched', undefined);
    await shots.save(id, 1, named('Again'));
    expect(await shots.revisionOf(id)).toEqual({
      id,
      name: 'Again',
      revision: 2,
      updatedAt: (await shots.open(id)).updatedAt,
    });
    await shots.delete(id);
    await expect(shots.revisionOf(id)).rejects.toMatchObject({ status: 404 });
  });

  it('a rename changes the document too', async () => {
    const { id } = await shots.create('Before', undefined);
    await shots.rename(id, 'After');
    expect((await shots.documentOf(id)).shot.name).toBe('After');
  });

  it('a deleted shot is off the list, refuses saves, and comes back whole', async () => {
    const { id } = await shots.create('Gone', undefined);
    await shots.delete(id);
    expect(await shots.list()).toEqual([]);
    await expect(shots.save(id, 1, named('Ghost'))).rejects.toMatchObject({ status: 404 });
    await expect(shots.delete(id)).rejects.toMatchObject({ status: 404 });
    await shots.undelete(id);
    expect((await shots.list()).map((card) => card.name)).toEqual(['Gone']);
    await expect(shots.undelete(id)).rejects.toMatchObject({ status: 404 });
  });

  it('the newest change is first, and a card knows what to draw', async () => {
    const points = [0, 10].map((z) => ({ position: [0, 0, z] as [number, number, number] }));
    const document = newShot({
      name: 'Drawn',
      paths: [
        { id: 'p', name: 'P', basis: 'polyline', points },
        { id: 'q', name: 'Q', points: [] },
      ],
      riders: [{ id: 'r', name: 'R', badge: 'R7', color: 5, attachment: { path: 'p' } }],
    });
    await shots.create(undefined, document);
    await shots.create('Newer', undefined);
    const [newer, drawn] = await shots.list();
    expect(newer.name).toBe('Newer');
    const { paths, riders } = drawn.sketch as {
      paths: { points: number[]; color: number }[];
      riders: object[];
    };
    expect(paths).toHaveLength(1);
    expect(paths[0].color).toBe(5);
    expect([paths[0].points.slice(0, 2), paths[0].points.slice(-2)]).toEqual([
      [0, 0],
      [0, 10],
    ]);
    expect(riders).toEqual([{ badge: 'R7', color: 5 }]);
  });
});

describe('checkpoints', () => {
  beforeEach(start);

  it('those that were kept in the first tables are still there', async () => {
    const { id } = await shots.create('First', undefined);
    const kept = await checkpoints.add(id, 'Start');
    const database = app.get(DataSource);
    while ((await database.query("SELECT name FROM sqlite_master WHERE name = 'version'")).length === 0)
      await database.undoLastMigration();
    await database.runMigrations();
    expect(await checkpoints.list(id)).toEqual([kept]);
  });

  it('checkpoints share what they have in common, and each comes back as it was', async () => {
    const point = (x: number) => ({ position: [x, 0, 0] as [number, number, number] });
    const points = Array.from({ length: 200 }, (_, i) => point(i));
    const paths = Array.from({ length: 20 }, (_, n) => ({ id: `p${n}`, name: `P ${n}`, points }));
    const version = (n: number) =>
      newShot({
        name: `Version ${n}`,
        paths: paths.map((path, i) => (i === 0 ? { ...path, points: [point(n), point(0)] } : path)),
      });
    const { id } = await shots.create(undefined, version(0));
    const kept: string[] = [];
    for (let n = 1; n <= 10; n++) {
      kept.push((await checkpoints.add(id, `${n - 1}`)).id);
      await shots.save(id, n, version(n));
    }
    const sizes =
      'SELECT (SELECT sum(length(document)) FROM checkpoint) + (SELECT sum(length(bytes)) FROM piece) AS now';
    const [{ now }] = (await app.get(DataSource).query(sizes)) as { now: number }[];
    // As text, each of the ten would be a separate document.
    expect(now).toBeLessThan(JSON.stringify(version(0)).length);
    const back = await checkpoints.restore(id, kept[3], 11);
    expect(back.document).toEqual(version(3));
  });

  it('going back restores the document and keeps what stood before', async () => {
    const { id } = await shots.create('One', undefined);
    const kept = await checkpoints.add(id, 'Start');
    await shots.save(id, 1, newShot({ name: 'Two', fps: 30 }));
    const restored = await checkpoints.restore(id, kept.id, 2);
    expect(restored).toMatchObject({ revision: 3, name: 'One' });
    const names = (await checkpoints.list(id)).map((checkpoint) => checkpoint.name);
    expect(names).toEqual(['Before going back to "Start"', 'Start']);
  });

  it('going back on a stale revision changes nothing', async () => {
    const { id } = await shots.create('One', undefined);
    const kept = await checkpoints.add(id, 'Start');
    const paths = [
      { id: 'p', name: 'P', points: Array.from({ length: 200 }, (_, i) => ({ position: [i, 0, 0] })) },
    ];
    await shots.save(id, 1, newShot({ name: 'Two', paths } as Parameters<typeof newShot>[0]));
    const pieces = () => app.get(DataSource).query('SELECT digest FROM piece') as Promise<unknown>;
    const before = await pieces();
    await expect(checkpoints.restore(id, kept.id, 1)).rejects.toMatchObject({ status: 409 });
    expect(await pieces()).toEqual(before);
    expect((await shots.open(id)).name).toBe('Two');
    expect((await checkpoints.list(id)).map(({ name }) => name)).toEqual(['Start']);
  });

  it('a checkpoint of another shot is not taken', async () => {
    const one = await shots.create('One', undefined);
    const two = await shots.create('Two', undefined);
    const kept = await checkpoints.add(one.id, 'Start');
    await expect(checkpoints.restore(two.id, kept.id, 1)).rejects.toMatchObject({ status: 404 });
  });
});

describe('models', () => {
  beforeEach(start);

  it('the same file is kept once', async () => {
    const bytes = await glb('cart');
    const first = await models.add([{ name: 'hay_cart.glb', bytes: bytes }]);
    expect(first.name).toBe('Hay cart');
    expect((await models.add([{ name: 'hay_cart.glb', bytes: bytes }])).id).toBe(first.id);
    await models.add([{ name: 'other.glb', bytes: bytes }]);
    expect(await models.list()).toHaveLength(2);
    expect(readdirSync(join(folder, 'data/models'))).toHaveLength(1);
  });

  it('one that nothing uses can be deleted, and its file goes with the last that has it', async () => {
    const bytes = await glb('cart');
    const [used, other] = [
      await models.add([{ name: 'cart.glb', bytes: bytes }]),
      await models.add([{ name: 'copy.glb', bytes: bytes }]),
    ];
    const model = { id: 'm', name: 'Cart', source: { file: 'cart.glb' } };
    const { id } = await shots.create(undefined, newShot({ name: 'Wears it', models: [model] }));
    const checkpoint = await checkpoints.add(id, 'Still wears it');
    await shots.save(id, 1, newShot({ name: 'Wears none' }));
    await expect(models.delete(used.id)).rejects.toThrow('Cart is used by "Still wears it", so it stays.');
    await models.delete(other.id);
    expect((await models.list()).map(({ fileName }) => fileName)).toEqual(['cart.glb']);
    expect(readdirSync(join(folder, 'data/models'))).toHaveLength(1);
    await app.get(DataSource).query('DELETE FROM checkpoint WHERE id = ?', [checkpoint.id]);
    await models.delete(used.id);
    expect(readdirSync(join(folder, 'data/models'))).toHaveLength(0);
  });

  it('what a crash left is cleaned away at the next start, and nothing else', async () => {
    const kept = await models.add([{ name: 'cart.glb', bytes: await glb('cart') }]);
    for (const name of ['a.part', 'f'.repeat(64)]) writeFileSync(join(folder, 'data/models', name), 'x');
    await app.restart();
    serve();
    expect(readdirSync(join(folder, 'data/models'))).toHaveLength(1);
    expect((await models.fileOf(kept.id)).fileName).toBe('cart.glb');
  });

  it('a file that is refused leaves nothing behind', async () => {
    await expect(models.add([{ name: 'zeros.glb', bytes: new Uint8Array(64) }])).rejects.toThrow(
      /zeros\.glb/,
    );
    expect(await models.list()).toEqual([]);
    expect(readdirSync(join(folder, 'data'))).not.toContain('models');
  });

  it('a shot whose models are named by file finds them, and keeps the name of those it does not', async () => {
    const cart = await models.add([{ name: 'cart.glb', bytes: await glb('cart') }]);
    const sources = ['cart.glb', 'plane.glb'].map((file) => ({ id: file[0], name: file, source: { file } }));
    const { document } = await shots.create(undefined, newShot({ name: 'Files', models: sources }));
    expect((document as { models: { source: object }[] }).models.map(({ source }) => source)).toEqual([
      { asset: cart.id },
      { file: 'plane.glb' },
    ]);
  });
});

describe('demo data', () => {
  beforeEach(async () => {
    mkdirSync(join(folder, 'demo'));
    writeFileSync(join(folder, 'demo/cart.glb'), await glb('cart'));
    const shot = newShot({ name: 'Demo', models: [{ id: 'c', name: 'Cart', source: { file: 'cart.glb' } }] });
    writeFileSync(join(folder, 'demo/demo.shot.json'), writeShotText(shot));
    await start();
  });

  it('is put in once, under lasting ids, and stays deleted', async () => {
    const [demo] = await shots.list();
    expect(demo.name).toBe('Demo');
    expect(await models.open('cart')).toMatchObject({ shipped: true, fileName: 'cart.glb' });
    await shots.delete(demo.id);
    await app.restart();
    serve();
    expect(await shots.list()).toEqual([]);
  });
});

it('the database has a write-ahead log and its tables from migrations alone', async () => {
  await start();
  const database = app.get(DataSource);
  expect(await database.query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
  expect(database.options.synchronize).toBe(false);
  for (let undone = 0; undone < database.migrations.length; undone++) await database.undoLastMigration();
  const tables =
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('shot', 'checkpoint', 'model', 'seed')";
  expect(await database.query(tables)).toEqual([]);
  await database.runMigrations();
  expect(await database.query(tables)).toHaveLength(4);
});

it('a database from before, which could not shrink, is rewritten once so that it can', async () => {
  mkdirSync(app.data, { recursive: true });
  const before = new Database(join(app.data, 'fleet-rail.sqlite'));
  before.exec('CREATE TABLE other (x)');
  expect(before.pragma('auto_vacuum', { simple: true })).toBe(0);
  before.close();
  await start();
  expect(await app.get(DataSource).query('PRAGMA auto_vacuum')).toEqual([{ auto_vacuum: 2 }]);
  expect(await app.get(DataSource).query('SELECT count(*) AS rows FROM other')).toEqual([{ rows: 0 }]);
});
