import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { WorkThreads } from './work-threads.js';

type Job = number | 'hang' | 'hoard' | 'throw' | 'refuse' | 'die idle';

const script = pathToFileURL(join(process.cwd(), 'packages/server/test/odd-jobs.mjs'));
let threads: WorkThreads<Job, number>;
const make = (limits: object = {}) =>
  (threads = new WorkThreads(script, 'The job', { threads: 2, seconds: 30, megabytes: 64, ...limits }));
const all = async (job: Job, signal?: AbortSignal) => {
  const found: number[] = [];
  for await (const part of threads.run(job, signal)) found.push(part);
  return found;
};
afterEach(() => threads.close());

it('an answer comes in parts, and threads go on to the next job', async () => {
  make({ threads: 1 });
  expect(await Promise.all([all(3), all(0), all(2)])).toEqual([[3, 2, 1], [], [2, 1]]);
});

it('what takes too long is stopped, and does not hold up the next', async () => {
  make({ seconds: 1.5 });
  const hung = all('hang');
  expect(await all(2)).toEqual([2, 1]);
  await expect(hung).rejects.toMatchObject({
    reason: 'time',
    message: 'The job took over 1.5 s and was stopped.',
  });
  expect(await all(1)).toEqual([1]);
});

it('what takes too much memory is stopped alone', async () => {
  make();
  await expect(all('hoard')).rejects.toMatchObject({ reason: 'memory' });
  expect(await all(1)).toEqual([1]);
});

it('a refusal is told, and keeps its thread; what breaks is no refusal', async () => {
  make({ threads: 1 });
  await expect(all('refuse')).rejects.toMatchObject({ reason: 'refused', message: 'odd.glb: is no model.' });
  await expect(all('throw')).rejects.toThrow('It is broken.');
  expect(await all(1)).toEqual([1]);
});

it('a thread that ends while it waits is not given the next job', async () => {
  make({ threads: 1 });
  expect(await all('die idle')).toEqual([]);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(await all(2)).toEqual([2, 1]);
});

it('a job that is no longer wanted ends at once, while it runs and while it waits', async () => {
  make({ threads: 1 });
  const [running, waiting] = [new AbortController(), new AbortController()];
  const hung = all('hang', running.signal);
  const queued = all(2, waiting.signal);
  waiting.abort();
  await expect(queued).rejects.toMatchObject({ reason: 'cancelled' });
  running.abort();
  await expect(hung).rejects.toMatchObject({ reason: 'cancelled' });
  expect(await all(1)).toEqual([1]);
});

it('who stops reading frees the thread', async () => {
  make({ threads: 1 });
  for await (const part of threads.run(1_000_000)) if (part < 999_998) break;
  expect(await all(2)).toEqual([2, 1]);
});

it('closing ends whatever runs', async () => {
  make();
  const hung = all('hang');
  const [outcome] = await Promise.all([hung.catch((error: Error) => error), threads.close()]);
  expect(outcome).toMatchObject({ reason: 'stopped' });
  await expect(all(1)).rejects.toMatchObject({ reason: 'stopped' });
});
