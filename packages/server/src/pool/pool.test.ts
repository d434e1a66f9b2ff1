import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { deflateSync } from 'node:zlib';
import type { INestApplication } from '@nestjs/common';
import { newShot, type PictureJob, type TakenRun } from '@fleet-rail/core';
import { createApp } from '../create-app.js';
import { PictureQueue } from './picture-queue.js';

const LEASE = 5_000;
const SIZE = { width: 16, height: 16 };

let folder: string;
let app: INestApplication;
let queue: PictureQueue;
let now: number;
const clock = Date.now;

async function start(): Promise<void> {
  app = await createApp({
    dataFolder: join(folder, 'data'),
    demoFolder: join(folder, 'demo'),
    port: 0,
    webFolder: null,
    takers: 0,
    browser: '',
    lease: LEASE,
  });
  await app.init();
  queue = app.get(PictureQueue);
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fleet-rail-pool-'));
  now = Date.now();
  Date.now = () => now;
  await start();
});
afterEach(async () => {
  Date.now = clock;
  await app.close();
  rmSync(folder, { recursive: true });
});

const job = (pictures: number): PictureJob => ({
  shot: newShot({ name: 'Far' }),
  wish: {
    frames: 'range',
    every: 1,
    eye: 'view',
    ...SIZE,
    times: 1,
    file: 'png',
    quality: 0.5,
    rounds: 1,
    burnIn: { frame: false, timecode: false, name: false, board: false, safe: false },
    helpers: false,
    clear: false,
  },
  pictures: Array.from({ length: pictures }, (_, i) => ({ frame: i + 1, eyes: [{ rider: 'c' }] })),
  theme: 'day',
  board: null,
});
const add = (pictures = 10) =>
  queue.add({ shotId: null, fileName: 'Far.zip', work: job(pictures) }).then(({ id }) => id);

/** A PNG written by hand: one grey for each index. */
function png(index: number, { width, height } = SIZE): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const sized = Buffer.alloc(4);
    sized.writeUInt32BE(data.length);
    const sum = Buffer.alloc(4);
    sum.writeUInt32BE(crc(body));
    return Buffer.concat([sized, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const rows = Buffer.alloc((width + 1) * height, index % 256);
  for (let row = 0; row < height; row++) rows[row * (width + 1)] = 0;
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** CRC-32 as PNG has it, bit by bit. */
function crc(bytes: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of bytes) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = (sum >>> 1) ^ (sum & 1 ? 0xedb88320 : 0);
  }
  return (sum ^ 0xffffffff) >>> 0;
}

/** Draws a whole run, or joins all pictures one after the other. */
async function work(taker: string, run: TakenRun): Promise<void> {
  if (run.kind === 'join') {
    const pictures = await Promise.all(
      Array.from({ length: run.count }, async (_, i) => readFileSync(await queue.picture(run.job, i))),
    );
    return queue.giveFile(run.run, taker, Readable.from([Buffer.concat(pictures)]));
  }
  for (let i = run.first; i < run.first + run.count; i++) await queue.givePicture(run.run, taker, i, png(i));
  return queue.give(run.run, taker);
}

/** Works for as long as something waits. */
async function workOn(taker: string): Promise<void> {
  for (let run = await claim(taker); run !== null; run = await claim(taker)) await work(taker, run);
}

const claim = (taker: string) => queue.claim(taker, {});
const fileOf = async (id: string) => readFileSync((await queue.file(id)).path);
const whole = (pictures: number) => Buffer.concat(Array.from({ length: pictures }, (_, i) => png(i)));

async function taken(taker: string): Promise<TakenRun> {
  const run = await claim(taker);
  if (run === null) throw new Error('Nothing waits.');
  return run;
}

it('one taker draws all runs in order, then joins them', async () => {
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

it('no two takers get the same run, and joining waits for the last picture', async () => {
  await add(10);
  const runs = await Promise.all(['a', 'b', 'c', 'd'].map(claim));
  expect(runs.map((run) => run?.first ?? null)).toEqual([0, 4, 8, null]);
  await work('a', runs[0] as TakenRun);
  await work('c', runs[2] as TakenRun);
  expect(await claim('d')).toBeNull();
  await work('b', runs[1] as TakenRun);
  expect(await claim('d')).toMatchObject({ kind: 'join' });
});

it('a slow taker that is heard of keeps its run; one that is not loses it, and what it brings late is refused', async () => {
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

it('a taker that dies in the middle of a run has it drawn elsewhere, from its first picture on', async () => {
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
])('a picture that is %s is refused, and its run waits for another taker', async (_, broken) => {
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
  await app.close();
  await start();
  // The taker lives on and finds its run still its own.
  for (let i = 5; i < 8; i++) await queue.givePicture(half.run, 'a', i, png(i));
  await queue.give(half.run, 'a');
  await workOn('a');
  expect(await fileOf(id)).toEqual(whole(10));
});

it('what five takers in turn are lost over is given up, and says so', async () => {
  const id = await add(4);
  for (let i = 0; i < 5; i++) {
    expect(await claim(`t${i}`)).not.toBeNull();
    now += LEASE + 1;
  }
  expect(await claim('t5')).toBeNull();
  expect(await queue.open(id)).toMatchObject({
    state: 'failed',
    problem: 'Pictures 1 to 4 failed 5 times, the last time since: its taker was lost',
  });
});

it('what is the job’s own fault ends it at once; its words are kept', async () => {
  const id = await add(4);
  const run = await taken('a');
  await queue.fail(run.run, 'a', 'This browser encodes no MP4 of 16 × 16.', true);
  expect(await queue.open(id)).toMatchObject({
    state: 'failed',
    problem: 'This browser encodes no MP4 of 16 × 16.',
  });
  expect(await claim('b')).toBeNull();
});

it('a job that is taken back leaves nothing, and its taker is told', async () => {
  const id = await add(4);
  const run = await taken('a');
  await queue.givePicture(run.run, 'a', 0, png(0));
  await queue.remove(id);
  expect(readdirSync(join(folder, 'data/pictures'))).toEqual([]);
  await expect(queue.givePicture(run.run, 'a', 1, png(1))).rejects.toMatchObject({ status: 410 });
  await expect(queue.open(id)).rejects.toMatchObject({ status: 404 });
});
