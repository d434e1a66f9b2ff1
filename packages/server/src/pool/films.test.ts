import { Readable } from 'node:stream';
import { readFileSync } from 'node:fs';
import type { PictureJob, ClaimedBatch } from '@fleet-rail/core';
import { job, png, stored, whole, zipOf } from '../testing/pictures.js';
import { TestApp } from '../testing/test-app.js';
import { PictureQueue } from './picture-queue.js';

const LEASE = 5_000;
let app: TestApp;
let queue: PictureQueue;
let now: number;
const clock = Date.now;

beforeEach(async () => {
  now = Date.now();
  Date.now = () => now;
  app = new TestApp(LEASE);
  await app.start();
  queue = app.get(PictureQueue);
});
afterEach(async () => {
  Date.now = clock;
  await app.end();
});

const fileOf = async (id: string) => readFileSync((await queue.file(id)).path);

async function taken(renderer: string): Promise<ClaimedBatch> {
  const run = await queue.claim(renderer, {});
  if (run === null) throw new Error('Nothing waits.');
  return run;
}

async function draw(renderer: string, { run, first, count }: ClaimedBatch): Promise<void> {
  for (let i = first; i < first + count; i++) await queue.givePicture(run, renderer, i, png(i));
  await queue.give(run, renderer);
}

describe('a film', () => {
  const joinOf = async (file: PictureJob['wish']['file'], pictures = 4) => {
    const plan = job(pictures);
    const { id } = await queue.add({
      shotId: null,
      fileName: 'Far',
      ...stored({ ...plan, wish: { ...plan.wish, file } }),
    });
    for (;;) {
      const run = await taken('a');
      if (run.kind === 'join') return { id, run: run.run };
      await draw('a', run);
    }
  };
  const give = (run: string, renderer: string, bytes: Buffer) =>
    queue.giveFile(run, renderer, Readable.from([bytes]));

  it.each(['webm', 'mp4', 'gif', 'pdf', 'sheet', 'png'] as const)(
    'that is no %s is refused, and its run waits for another renderer',
    async (file) => {
      const { id, run } = await joinOf(file);
      await expect(give(run, 'a', Buffer.from('<html></html>\n'))).rejects.toMatchObject({ status: 422 });
      const card = await queue.open(id);
      expect(card.state).toBe('drawing');
      expect(card.runs.at(-1)).toMatchObject({ kind: 'join', state: 'waiting', lost: 1 });
      await expect(queue.file(id)).rejects.toMatchObject({ status: 404 });
    },
  );

  it('with too few pictures in its zip is refused', async () => {
    const { run } = await joinOf('png');
    await expect(give(run, 'a', whole(3))).rejects.toThrow('The zip holds 3 files; expected 4.');
  });

  it('that a renderer gives after another has given it is refused, and the given one stays', async () => {
    const { id, run } = await joinOf('png');
    now += LEASE + 1;
    const again = await taken('b');
    expect(again.run).toBe(run);
    // The first one's upload began in time and ends after the other's.
    let end = (): void => undefined;
    const slow = Readable.from(
      (async function* () {
        await new Promise<void>((resolve) => (end = resolve));
        yield zipOf([png(9), png(9), png(9), png(9)]);
      })(),
    );
    await queue.giveFile(run, 'b', Readable.from([whole(4)]));
    const late = queue.giveFile(run, 'a', slow);
    await expect(late).rejects.toMatchObject({ status: 410 });
    end();
    expect(await fileOf(id)).toEqual(whole(4));
  });

  it('that is overtaken while it is on its way is refused, and the given one stays', async () => {
    const { id, run } = await joinOf('png');
    let end = (): void => undefined;
    const gate = new Promise<void>((resolve) => (end = resolve));
    const slow = Readable.from(
      (async function* () {
        await gate;
        yield zipOf([png(9), png(9), png(9), png(9)]);
      })(),
    );
    const late = queue.giveFile(run, 'a', slow);
    now += LEASE + 1;
    const again = await taken('b');
    await queue.giveFile(again.run, 'b', Readable.from([whole(4)]));
    end();
    await expect(late).rejects.toMatchObject({ status: 410 });
    expect(await fileOf(id)).toEqual(whole(4));
  });
});
