import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ClaimedBatch } from '@fleet-rail/core';
import { DataSource } from 'typeorm';
import { job, png, stored, whole, zipOf } from '../testing/pictures.js';
import { TestApp } from '../testing/test-app.js';
import { PictureQueue } from './picture-queue.js';

const LEASE = 5_000;

let app: TestApp;
let folder: string;
let queue: PictureQueue;
let now: number;
const clock = Date.now;

beforeEach(async () => {
  now = Date.now();
  Date.now = () => now;
  app = new TestApp(LEASE);
  folder = app.folder;
  await app.start();
  queue = app.get(PictureQueue);
});
afterEach(async () => {
  Date.now = clock;
  await app.end();
});

async function restart(): Promise<void> {
  await app.restart();
  queue = app.get(PictureQueue);
}

const add = (pictures = 10) =>
  queue.add({ shotId: null, fileName: 'Far.zip', ...stored(job(pictures)) }).then(({ id }) => id);

/** Draws a whole run, or joins all pictures one after the other. */
async function work(renderer: string, run: ClaimedBatch): Promise<void> {
  if (run.kind === 'join') {
    const pictures = await Promise.all(
      Array.from({ length: run.count }, async (_, i) => readFileSync(await queue.picture(run.job, i))),
    );
    return queue.giveFile(run.run, renderer, Readable.from([zipOf(pictures)]));
  }
  for (let i = run.first; i < run.first + run.count; i++)
    await queue.givePicture(run.run, renderer, i, png(i));
  return queue.give(run.run, renderer);
}

/** Works for as long as something waits. */
async function workOn(renderer: string): Promise<void> {
  for (let run = await claim(renderer); run !== null; run = await claim(renderer)) await work(renderer, run);
}

const claim = (renderer: string) => queue.claim(renderer, {});
const fileOf = async (id: string) => readFileSync((await queue.file(id)).path);
async function taken(renderer: string): Promise<ClaimedBatch> {
  const run = await claim(renderer);
  if (run === null) throw new Error('Nothing waits.');
  return run;
}

it('one renderer draws all runs in order, then joins them', async () => {
  const id = await add(10);
  const kinds: string[] = [];
  for (let run = await claim('a'); run !== null; run = await claim('a')) {
    kinds.push(`${run.kind} ${run.first} ${run.count}`);
    await work('a', run);
  }
  expect(kinds).toEqual(['draw 0 4', 'draw 4 4', 'draw 8 2', 'join 0 10']);
  expect(await fileOf(id)).toEqual(whole(10));
  expect(await queue.open(id)).toMatchObject({ state: 'done', drawn: 10, bytes: whole(10).length, shown: 4 });
  // Of the pictures one stays, to be shown.
  expect(readdirSync(join(folder, 'data/pictures', id)).sort()).toEqual(['4.png', 'file']);
});

it('no two renderers get the same run, and joining waits for the last picture', async () => {
  await add(10);
  const runs = await Promise.all(['a', 'b', 'c', 'd'].map(claim));
  expect(runs.map((run) => run?.first ?? null)).toEqual([0, 4, 8, null]);
  await work('a', runs[0] as ClaimedBatch);
  await work('c', runs[2] as ClaimedBatch);
  expect(await claim('d')).toBeNull();
  await work('b', runs[1] as ClaimedBatch);
  expect(await claim('d')).toMatchObject({ kind: 'join' });
});

it('a slow renderer that is heard of keeps its run; one that is not loses it, and what it brings late is refused', async () => {
  const id = await add(4);
  const slow = await taken('slow');
  for (let i = 0; i < 5; i++) {
    now += 0.9 * LEASE;
    await queue.beat(slow.run, 'slow', 0);
    expect(await claim('other')).toBeNull();
  }
  now += LEASE + 1;
  const again = await taken('other');
  expect(again.run).toBe(slow.run);
  await expect(queue.beat(slow.run, 'slow', 1)).rejects.toMatchObject({ status: 410 });
  await expect(queue.givePicture(slow.run, 'slow', 0, png(99))).rejects.toMatchObject({ status: 410 });
  await expect(queue.give(slow.run, 'slow')).rejects.toMatchObject({ status: 410 });
  await work('other', again);
  await workOn('other');
  expect(await fileOf(id)).toEqual(whole(4));
  expect((await queue.open(id)).runs[0].lost).toBe(1);
});

it('a renderer that dies in the middle of a run has it drawn elsewhere, from its first picture on', async () => {
  const id = await add(10);
  const run = await taken('dies');
  await queue.givePicture(run.run, 'dies', 0, png(0));
  await queue.givePicture(run.run, 'dies', 1, png(1));
  await workOn('b');
  expect((await queue.open(id)).state).toBe('drawing');
  now += LEASE + 1;
  await workOn('b');
  expect(await fileOf(id)).toEqual(whole(10));
});

it.each([
  ['cut off', png(0).subarray(0, 40)],
  ['of another size', png(0, { width: 8, height: 16 })],
  ['with a byte changed', Buffer.from(png(0).map((byte, i) => (i === 45 ? byte ^ 1 : byte)))],
  ['no picture at all', Buffer.from('<html>')],
  ['empty', Buffer.alloc(0)],
])('a picture that is %s is refused, and its run waits for another renderer', async (_, broken) => {
  const id = await add(4);
  const run = await taken('breaks');
  await expect(queue.givePicture(run.run, 'breaks', 0, broken)).rejects.toMatchObject({ status: 422 });
  await expect(queue.give(run.run, 'breaks')).rejects.toMatchObject({ status: 410 });
  await workOn('good');
  expect(await fileOf(id)).toEqual(whole(4));
});

it('a run is not given before all of its pictures are there', async () => {
  await add(4);
  const run = await taken('a');
  await queue.givePicture(run.run, 'a', 0, png(0));
  await expect(queue.give(run.run, 'a')).rejects.toMatchObject({ status: 422 });
  await expect(queue.givePicture(run.run, 'a', 4, png(4))).rejects.toMatchObject({ status: 422 });
});

it('a server that is stopped and started again goes on where it was', async () => {
  const id = await add(10);
  await work('a', await taken('a'));
  const half = await taken('a');
  await queue.givePicture(half.run, 'a', 4, png(4));
  await restart();
  // The renderer lives on and finds its run still its own.
  for (let i = 5; i < 8; i++) await queue.givePicture(half.run, 'a', i, png(i));
  await queue.give(half.run, 'a');
  await workOn('a');
  expect(await fileOf(id)).toEqual(whole(10));
});

it('a run that is lost five times is paused by itself: the others are drawn, and it can be tried again', async () => {
  const id = await add(12);
  for (let i = 0; i < 5; i++) {
    // Every renderer that takes the first run dies of it; all others are given.
    for (let run = await claim(`t${i}`); run !== null && run.first > 0; run = await claim(`t${i}`))
      await work(`t${i}`, run);
    now += LEASE + 1;
  }
  expect(await claim('last')).toBeNull();
  const problem = 'Pictures 1 to 4 failed 5 times. Last reason: its renderer did not answer in time.';
  const card = await queue.open(id);
  expect(card).toMatchObject({ state: 'paused', problem, drawn: 8 });
  expect(card.runs.map(({ state }) => state)).toEqual(['paused', 'given', 'given', 'waiting']);
  expect((await queue.list())[0]).toEqual(card);
  expect(await queue.tryAgain(id)).toMatchObject({ state: 'drawing', problem: null, drawn: 8 });
  await workOn('better');
  expect(await fileOf(id)).toEqual(whole(12));
});

it('a run that was lost is handed out after those that were not', async () => {
  await add(12);
  const first = await taken('dies');
  now += LEASE + 1;
  const order = [];
  for (let run = await claim('a'); run !== null; run = await claim('a')) order.push(run.first);
  expect([first.first, order]).toEqual([0, [4, 8, 0]]);
});

it('the desk of another shot goes on with what nobody draws, after its own', async () => {
  const [far, near] = ['6f1c1a7e-0000-4000-8000-000000000001', '6f1c1a7e-0000-4000-8000-000000000002'];
  const left = await queue.add({ shotId: far, fileName: 'Far.zip', ...stored(job(8)) });
  const own = await queue.add({ shotId: near, fileName: 'Near.zip', ...stored(job(4)) });
  const claimed = async (renderer: string) => (await queue.claim(renderer, { shot: near }))?.job ?? null;
  expect([await claimed('a'), await claimed('a'), await claimed('a')]).toEqual([own.id, left.id, null]);
});

it('a job that is at fault itself pauses at once in its own words, and keeps what is drawn', async () => {
  const id = await add(8);
  await work('a', await taken('a'));
  const run = await taken('a');
  await queue.fail(run.run, 'a', 'This browser encodes no MP4 of 16 × 16.', true);
  expect(await queue.open(id)).toMatchObject({
    state: 'paused',
    problem: 'This browser encodes no MP4 of 16 × 16.',
    drawn: 4,
  });
  expect(await claim('b')).toBeNull();
  await queue.tryAgain(id);
  await workOn('b');
  expect(await fileOf(id)).toEqual(whole(8));
});

it('more done than a run has is refused, and the run stays with its renderer', async () => {
  await add(4);
  const run = await taken('a');
  await expect(queue.beat(run.run, 'a', 5)).rejects.toMatchObject({ status: 422 });
  await queue.beat(run.run, 'a', 4);
});

it('a job of thousands of pictures lets others have their turn while it is stored', async () => {
  const turns: number[] = [];
  const watch = setInterval(() => turns.push(performance.now()), 1);
  const id = await add(60_000);
  clearInterval(watch);
  // 2,500 batches in slices: every waiting client gets at least a turn a slice.
  expect(turns.length).toBeGreaterThan(5);
  expect((await queue.open(id)).runs).toHaveLength(2501);
});

it('a job that a server stored half when it ended is gone when it starts again', async () => {
  const id = await add(4);
  await app.get(DataSource).query("UPDATE picture_job SET state = 'adding'");
  expect(await queue.list()).toEqual([]);
  await restart();
  await expect(queue.open(id)).rejects.toMatchObject({ status: 404 });
  expect(await app.get(DataSource).query('SELECT count(*) AS runs FROM picture_run')).toEqual([{ runs: 0 }]);
});

it('a job that an earlier version gave up is paused with its reason, and can be tried again', async () => {
  const id = await add(8);
  const database = app.get(DataSource);
  const columns = async () =>
    ((await database.query("SELECT name FROM pragma_table_info('picture_job')")) as { name: string }[]).map(
      ({ name }) => name,
    );
  while (!(await columns()).includes('problem')) await database.undoLastMigration();
  await database.query("UPDATE picture_job SET state = 'failed', problem = 'Pictures 1 to 4 failed.'");
  await database.query("UPDATE picture_run SET state = 'given' WHERE place = 1");
  await database.runMigrations();
  expect(await queue.open(id)).toMatchObject({
    state: 'paused',
    problem: 'Pictures 1 to 4 failed.',
    drawn: 0,
  });
  await queue.tryAgain(id);
  await workOn('a');
  expect(await fileOf(id)).toEqual(whole(8));
});

it('a job that is taken back leaves nothing, and its renderer is told', async () => {
  const id = await add(4);
  const run = await taken('a');
  await queue.givePicture(run.run, 'a', 0, png(0));
  await queue.remove(id);
  expect(readdirSync(join(folder, 'data/pictures'))).toEqual([]);
  await expect(queue.givePicture(run.run, 'a', 1, png(1))).rejects.toMatchObject({ status: 410 });
  await expect(queue.open(id)).rejects.toMatchObject({ status: 404 });
});
