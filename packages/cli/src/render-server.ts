import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { JobCard, PictureJob } from '@fleet-rail/core';
import type { GivenFile } from '@fleet-rail/core/formats';
import { UsageError } from './options.js';

const SERVER = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));
const PAGE = fileURLToPath(new URL('../../web/dist/index.html', import.meta.url));
const DEBIANS_BROWSER = '/usr/bin/chromium';
/** Milliseconds within which the server has to listen. */
const PATIENCE = 60_000;
/** Milliseconds between two looks at how far it is. */
const LOOK = 300;
/** Changes are taken from who is no page of another site. */
const OWN = { 'X-Fleet-Rail': 'ride' };

/** A server of its own with renderers, on temporary data. */
export class RenderServer {
  private constructor(
    private readonly base: string,
    private readonly server: ChildProcess,
    private readonly data: string,
  ) {}

  /**
   * @param workers browsers that draw
   * @param browser Chromium's program; null for the one that Debian has
   * @throws UsageError where there is no browser, or the application is not built
   */
  static async start(workers: number, browser: string | null): Promise<RenderServer> {
    const program = browser ?? DEBIANS_BROWSER;
    if (!existsSync(program))
      throw new UsageError(
        `--browser: found nothing at "${program}"; expected the program of Chromium, which draws the pictures`,
      );
    if (!existsSync(SERVER) || !existsSync(PAGE))
      throw new UsageError('the application is not built; expected "npm run build" before');
    const data = mkdtempSync(join(tmpdir(), 'ride-render-'));
    const server = spawn(process.execPath, [SERVER], {
      env: {
        ...process.env,
        FLEET_RAIL_PORT: '0',
        FLEET_RAIL_DATA: data,
        FLEET_RAIL_RENDERERS: String(workers),
        FLEET_RAIL_BROWSER: program,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    try {
      return new RenderServer(await listening(server), server, data);
    } catch (error) {
      server.kill('SIGKILL');
      rmSync(data, { recursive: true, force: true });
      throw error;
    }
  }

  /** Ends it with all it has. */
  async stop(): Promise<void> {
    if (this.server.exitCode === null) {
      const gone = new Promise((resolve) => this.server.once('exit', resolve));
      this.server.kill('SIGTERM');
      await gone;
    }
    rmSync(this.data, { recursive: true, force: true, maxRetries: 3 });
  }

  /** Gives a model, and gets the id it is kept under. */
  async addModel(files: readonly GivenFile[]): Promise<string> {
    const form = new FormData();
    for (const { name, bytes } of files) form.append('file', new Blob([Uint8Array.from(bytes)]), name);
    const kept = await this.ask<{ id: string }>('/api/models', { method: 'POST', body: form, headers: OWN });
    return kept.id;
  }

  async addJob(job: PictureJob & { readonly fileName: string }): Promise<string> {
    const headers = { ...OWN, 'Content-Type': 'application/json' };
    const body = JSON.stringify(job);
    return (await this.ask<{ id: string }>('/api/pool/jobs', { method: 'POST', body, headers })).id;
  }

  /**
   * Waits until a job is done.
   *
   * @throws UsageError with the reason where a part of it is paused
   */
  async done(job: string, told: (job: JobCard) => void): Promise<Uint8Array> {
    for (;;) {
      const card = await this.ask<JobCard>(`/api/pool/jobs/${job}`);
      told(card);
      if (card.problem !== null) throw new UsageError(card.problem);
      if (card.state === 'done') break;
      await new Promise((resolve) => setTimeout(resolve, LOOK));
    }
    const answer = await fetch(`${this.base}/api/pool/jobs/${job}/file`);
    return new Uint8Array(await answer.arrayBuffer());
  }

  private async ask<T>(path: string, init?: RequestInit): Promise<T> {
    const answer = await fetch(`${this.base}${path}`, init);
    const body = (await answer.json()) as T & { message?: string | string[] };
    if (!answer.ok)
      throw new UsageError([body.message ?? `the server answered ${answer.status}`].flat().join(' '));
    return body;
  }
}

/** The address a server listens on. */
function listening(server: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let said = '';
    const late = setTimeout(() => reject(new UsageError('the server did not start in time')), PATIENCE);
    server.stdout?.on('data', (text: Buffer) => {
      const address = /http:\/\/[\d.:]+/.exec(String(text))?.[0];
      if (address === undefined) return;
      clearTimeout(late);
      resolve(address);
    });
    server.stderr?.on('data', (text: Buffer) => (said += String(text)));
    server.once('exit', () => {
      clearTimeout(late);
      reject(new UsageError(`the server ended before it listened: ${said.trim().slice(0, 300)}`));
    });
  });
}
