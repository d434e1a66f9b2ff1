// Time that others wait for an answer while the server does something large: measured from another process.
import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { smallJob } from '../fuzz/dist/faults/small-job.js';
import { started } from './bench-server.mjs';

const WANTED = '(wanted: 200 ms or less)';
const CHECKPOINTS = 1_500;
const PICTURES = 20_000;
const KEYS = 1_500_000;
/** Milliseconds between two questions. */
const STEP = 10;

export async function benchWaits({ line }) {
  const data = mkdtempSync(join(tmpdir(), 'fleet-rail-waits-'));
  const server = await started(data);
  const send = (path, method, body) =>
    fetch(`${server.url}${path}`, {
      method,
      body: typeof body === 'string' ? body : body && JSON.stringify(body),
      headers: { origin: server.url, 'content-type': 'application/json' },
    });
  const measured = async (what, work) => {
    const watch = await watching(server.url);
    await (await work()).arrayBuffer();
    line(`Others wait while ${what} ${WANTED}`, `${(await watch.worst()).toFixed(0)} ms`);
  };
  try {
    const [{ id }] = await (await send('/api/shots', 'GET')).json();
    for (let n = 0; n < CHECKPOINTS; n++)
      await send(`/api/shots/${id}/checkpoints`, 'POST', { name: `${n}` });
    await measured(`${CHECKPOINTS} checkpoints are backed up`, () => send('/api/library/backup', 'GET'));
    await send(`/api/shots/${id}`, 'DELETE');
    await measured(`${CHECKPOINTS} checkpoints are deleted for good`, () => send('/api/bin', 'DELETE'));
    await measured(`a job of ${PICTURES} pictures is stored`, () =>
      send('/api/pool/jobs', 'POST', smallJob(PICTURES)),
    );
    const flood = Array.from({ length: KEYS / 1000 }, (_, n) => keys(1000 * n, 1000)).join(',');
    await measured('a document of 1.5 million keys is refused', () =>
      send('/api/shots', 'POST', `{"document":{"a":[${flood}]}}`),
    );
  } finally {
    await server.end();
    rmSync(data, { recursive: true });
  }
}

const keys = (first, count) =>
  `{${Array.from({ length: count }, (_, i) => `"${(first + i).toString(36)}":1`).join(',')}}`;

/** Asks for something small again and again until the worst wait is asked for. */
async function watching(url) {
  const child = fork(fileURLToPath(import.meta.url), [url], { env: { ...process.env, BENCH_WATCH: '1' } });
  const heard = () => new Promise((resolve) => child.once('message', resolve));
  await heard();
  return {
    worst() {
      const worst = heard();
      child.send('stop');
      return worst;
    },
  };
}

async function watch(url) {
  const agent = new http.Agent({ keepAlive: true });
  const ask = () =>
    new Promise((resolve, reject) => {
      const begun = performance.now();
      http
        .get(`${url}/api/shots/deleted`, { agent }, (answer) => {
          answer.resume();
          answer.on('end', () => resolve(performance.now() - begun));
        })
        .on('error', reject);
    });
  let isOver = false;
  process.once('message', () => (isOver = true));
  await ask();
  process.send('ready');
  let worst = 0;
  while (!isOver) {
    worst = Math.max(worst, await ask());
    await setTimeout(STEP);
  }
  process.send(worst, () => process.exit(0));
}

if (process.env.BENCH_WATCH === '1') await watch(process.argv[2]);
