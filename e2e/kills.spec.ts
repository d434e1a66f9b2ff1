import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

const ROOT = new URL('..', import.meta.url).pathname;
const KILLS = 6;

/** A port that nobody listens on. */
const freePort = () =>
  new Promise<number>((resolve, reject) => {
    const probe = createServer().once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

interface Kept {
  readonly revision: number;
  readonly document: { readonly name: string };
}

test('a server that is killed while it saves has lost nothing that it acknowledged', async () => {
  const data = mkdtempSync(join(tmpdir(), 'fleet-rail-kills-'));
  const port = await freePort();
  const base = `http://127.0.0.1:${port}/api/shots`;
  const headers = { 'Content-Type': 'application/json' };
  let server: ChildProcess | null = null;
  const start = async (): Promise<void> => {
    const child = spawn(process.execPath, ['packages/server/dist/main.js'], {
      cwd: ROOT,
      env: { ...process.env, FLEET_RAIL_PORT: String(port), FLEET_RAIL_DATA: data },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    server = child;
    await new Promise<void>((resolve, reject) => {
      child.once('exit', () => reject(new Error('The server ended before it listened.')));
      child.stdout?.on('data', (text: Buffer) => text.includes('http://') && resolve());
    });
  };
  const kill = async (): Promise<void> => {
    const child = server as unknown as ChildProcess;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  };
  try {
    await start();
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
    await kill();
    rmSync(data, { recursive: true });
  }
});
