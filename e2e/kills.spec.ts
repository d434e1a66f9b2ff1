import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { smallJob } from '@fleet-rail/fuzz/small-job';
import { zipSync } from 'fflate';
import { PNG } from 'pngjs';
import { startServer } from './support/own-server.js';
import { expect, test } from './support/test.js';

const KILLS = 6;

interface Kept {
  readonly revision: number;
  readonly document: { readonly name: string };
}

/** Pictures in the zip that they are handed over in, the same for the same pictures. */
function zipOf(pictures: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const entries = pictures.map((bytes, i) => [`frame-${i}.png`, bytes] as const);
  const zip = zipSync(Object.fromEntries(entries), { level: 0, mtime: new Date(2000, 0, 1) });
  return Uint8Array.from(zip);
}

/** A server on a port and data folder of its own, to be killed and started again. */
async function mortal(name: string) {
  const data = mkdtempSync(join(tmpdir(), `fleet-rail-${name}-`));
  let server = await startServer(data);
  const { url } = server;
  const start = async (): Promise<void> => {
    server = await startServer(data, Number(new URL(url).port));
  };
  const kill = (): Promise<void> => server.kill();
  const end = async (): Promise<void> => {
    await kill();
    rmSync(data, { recursive: true });
  };
  return { base: `${url}/api`, start, kill, end };
}

test('a server that is killed while it saves has lost nothing that it acknowledged', async () => {
  // Servers that start over and over take their time on a busy machine.
  const { base: api, start, kill, end } = await mortal('kills');
  const base = `${api}/shots`;
  const headers = { 'Content-Type': 'application/json' };
  try {
    const made = await fetch(base, { method: 'POST', headers, body: JSON.stringify({ name: '0' }) });
    const { id, document } = (await made.json()) as Kept & { id: string };
    let [acknowledged, sent] = [1, 1];
    for (let round = 0; round < KILLS; round++) {
      // It is killed after another number of answers each time, with a save on its way.
      const last = acknowledged + 3 + 7 * round;
      for (let going = true; going;) {
        sent = acknowledged + 1;
        const saving = fetch(`${base}/${id}`, {
          method: 'PUT',
          headers,
          body: JSON.stringify({ revision: acknowledged, document: { ...document, name: String(sent) } }),
        });
        if (sent === last) {
          going = false;
          saving.catch(() => undefined);
          await kill();
        } else {
          const answer = await saving;
          expect(answer.status).toBe(200);
          expect(((await answer.json()) as Kept).revision).toBe(sent);
          acknowledged = sent;
        }
      }
      await start();
      const kept = (await (await fetch(`${base}/${id}`)).json()) as Kept;
      expect([acknowledged, sent]).toContain(kept.revision);
      expect(kept.document.name).toBe(kept.revision === 1 ? '0' : String(kept.revision));
      acknowledged = kept.revision;
    }
  } finally {
    await end();
  }
});

/** A grey picture of 16 by 16, another grey for each index. */
function grey(index: number): Uint8Array<ArrayBuffer> {
  const picture = new PNG({ width: 16, height: 16 });
  picture.data.fill(10 + index);
  return Uint8Array.from(PNG.sync.write(picture));
}

test('a server that is killed again and again while pictures are given makes the file that one left alone makes', async () => {
  const { base, start, kill, end } = await mortal('pool');
  const headers = { 'Content-Type': 'application/json' };
  const self = { id: '6f1c1a7e-0000-4000-8000-000000000001', name: 'Renderer', kind: 'window' };
  const count = 30;
  const ask = async (path: string, body: object, method = 'POST') =>
    fetch(`${base}/pool/${path}`, { method, headers, body: JSON.stringify(body) });
  let sent = 0;
  const give = async (path: string, content: Uint8Array<ArrayBuffer>, type: string) => {
    const put = () =>
      fetch(`${base}/pool/batches/${path}?renderer=${self.id}`, {
        method: 'PUT',
        body: content,
        headers: { 'Content-Type': type, 'X-Fleet-Rail': 'test' },
      });
    sent++;
    if (sent % 7 !== 0) return put();
    // Every seventh is on its way when the server is killed; it is sent again to the next one.
    const lost = put().catch(() => undefined);
    await kill();
    await lost;
    await start();
    return put();
  };
  try {
    const made = await ask('jobs', smallJob(count));
    expect(made.status).toBe(201);
    const { id } = (await made.json()) as { id: string };
    for (;;) {
      const claimed = await ask('claim', self);
      if (claimed.status === 204) break;
      const {
        run,
        kind,
        first,
        count: size,
      } = (await claimed.json()) as {
        run: string;
        kind: string;
        first: number;
        count: number;
      };
      if (kind === 'join') {
        const parts: Buffer[] = [];
        for (let i = 0; i < size; i++)
          parts.push(Buffer.from(await (await fetch(`${base}/pool/jobs/${id}/pictures/${i}`)).arrayBuffer()));
        const joined = await give(`${run}/file`, zipOf(parts), 'application/octet-stream');
        expect(joined.status).toBe(204);
        continue;
      }
      for (let i = first; i < first + size; i++)
        expect((await give(`${run}/pictures/${i}`, grey(i), 'image/png')).status).toBe(204);
      expect((await ask(`batches/${run}/given`, { renderer: self.id })).status).toBe(204);
    }
    expect(sent).toBeGreaterThan(count);
    const file = Buffer.from(await (await fetch(`${base}/pool/jobs/${id}/file`)).arrayBuffer());
    const whole = Buffer.from(zipOf(Array.from({ length: count }, (_, i) => grey(i))));
    expect(file.equals(whole)).toBe(true);
  } finally {
    await end();
  }
});
