// Processor and memory of the server process for large shots, measured from outside.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const HAULERS = 200;
/** With those of the demo they make a document of a megabyte. */
const EXTRA_PATHS = 16;
/** Of a tick in which Linux counts a process's time. */
const MS_PER_TICK = 10;

export async function benchServer({ line }) {
  const data = mkdtempSync(join(tmpdir(), 'fleet-rail-bench-'));
  try {
    // The first start makes the demo; what is measured has not.
    await (await started(data)).end();
    for (const measure of [saveAndOpen, streamed]) {
      const server = await started(data);
      const ask = asking(server.url);
      await measure({ line, ask, server, demo: await theDemo(ask) });
      await server.end();
    }
  } finally {
    rmSync(data, { recursive: true });
  }
}

/** A shot of a megabyte: paths of many points. */
async function saveAndOpen({ line, ask, server, demo }) {
  const points = Array.from({ length: 400 }, (_, i) => ({
    position: [i + 0.123456789, Math.sin(i), Math.cos(i)],
  }));
  const extra = (n) => ({ id: `extra${n}`, name: `Extra ${n}`, basis: 'through', points });
  const paths = [...demo.paths, ...Array.from({ length: EXTRA_PATHS }, (_, n) => extra(n))];
  const made = await ask('', 'POST', { document: { ...demo, name: 'Large', paths } });
  const size = `${(JSON.stringify(made.document).length / 1e6).toFixed(2)} MB`;
  let { revision, document } = made;
  const [saves, opens] = [Infinity, Infinity].map((least) => ({ least }));
  const measured = async (kind, work) => {
    const before = server.processor();
    const answer = await work();
    kind.least = Math.min(kind.least, server.processor() - before);
    return answer;
  };
  for (let round = 0; round < 5; round++) {
    const [first, ...others] = document.riders;
    document = { ...document, riders: [{ ...first, name: `Round ${round}` }, ...others] };
    const saved = { document, revision, save: randomUUID() };
    ({ revision } = await measured(saves, () => ask(`/${made.id}`, 'PUT', saved)));
    await measured(opens, () => ask(`/${made.id}`));
  }
  line(`The server saves ${size}, processor (wanted: 60 ms or less)`, `${saves.least} ms`);
  line(`The server opens ${size}, processor (wanted: 60 ms or less)`, `${opens.least} ms`);
}

/** A CSV of many, read as it comes and kept nowhere. */
async function streamed({ line, ask, server, demo }) {
  const [hauler] = demo.riders;
  const riders = Array.from({ length: HAULERS }, (_, i) => ({ ...hauler, id: `h${i}`, name: `H ${i}` }));
  const document = {
    ...demo,
    name: 'Many',
    riders,
    retimes: [],
    formations: [],
    cuts: [],
    cues: [],
    dressing: [],
  };
  const { id } = await ask('', 'POST', { document });
  const { body } = await fetch(`${server.url}/api/shots/${id}/files/csv`);
  let bytes = 0;
  for await (const part of body) bytes += part.length;
  line(
    `A CSV of ${HAULERS} haulers, ${(bytes / 1e9).toFixed(1)} GB: the server’s memory at its highest (wanted: 300 MB or less)`,
    `${server.highest().toFixed(0)} MB`,
  );
}

async function theDemo(ask) {
  const list = await ask('');
  const { id } = list.find(({ name }) => name === 'Orchard loop');
  return (await ask(`/${id}`)).document;
}

function asking(url) {
  return async (path, method = 'GET', body = undefined) => {
    const headers = { 'content-type': 'application/json', origin: url };
    const answer = await fetch(`${url}/api/shots${path}`, { method, headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${method} ${path}: ${(await answer.text()).slice(0, 400)}`);
    return answer.json();
  };
}

export async function started(data) {
  const env = { ...process.env, FLEET_RAIL_PORT: '0', FLEET_RAIL_DATA: data };
  const child = spawn(process.execPath, ['packages/server/dist/main.js'], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise((resolve) => child.once('exit', resolve));
  const url = await new Promise((resolve, reject) => {
    void gone.then(() => reject(new Error('The server ended before it listened.')));
    child.stdout.on('data', (text) => {
      const at = /http:\/\/\S+(?=\/)/.exec(text.toString());
      if (at) resolve(at[0]);
    });
  });
  return {
    url,
    end() {
      child.kill('SIGTERM');
      return gone;
    },
    processor() {
      const fields = readFileSync(`/proc/${child.pid}/stat`, 'utf8').split(') ')[1].split(' ');
      return MS_PER_TICK * (Number(fields[11]) + Number(fields[12]));
    },
    highest: () => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))[1]) / 1024,
  };
}
