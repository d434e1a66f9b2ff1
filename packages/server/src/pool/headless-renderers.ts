import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  Inject,
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';
import { LISTEN_ADDRESS } from '../settings.js';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';

/** A browser without a window; without a graphics card it draws in software. */
const SWITCHES = [
  '--headless=new',
  '--no-sandbox',
  '--enable-unsafe-swiftshader',
  '--disable-background-timer-throttling',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-quic',
  '--no-first-run',
];
/** Milliseconds until a browser that ended is started again, longer each time it ends immediately. */
const AGAIN = 2_000;
const MOST_TRIES = 5;

/** Browsers that the server starts to render pictures, as many as are configured. */
@Injectable()
export class HeadlessRenderers implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly log = new Logger('Renderers');
  private readonly running = new Map<ChildProcess, string>();
  private readonly waits = new Set<NodeJS.Timeout>();
  private over = false;

  constructor(
    @Inject(SETTINGS) private readonly settings: Settings,
    private readonly host: HttpAdapterHost,
  ) {}

  /** They are started when there is an address to open. */
  onApplicationBootstrap(): void {
    const server = this.host.httpAdapter.getHttpServer() as Server;
    server.once('listening', () => {
      const { port } = server.address() as AddressInfo;
      for (let i = 1; i <= this.settings.renderers; i++) this.start(i, port, 0);
    });
  }

  /** All of them end before one waits for what they leave. */
  async onModuleDestroy(): Promise<void> {
    this.over = true;
    for (const wait of this.waits) clearTimeout(wait);
    const all = [...this.running];
    for (const [renderer] of all) renderer.kill('SIGKILL');
    await Promise.all(all.map(([renderer, profile]) => ended(renderer).then(() => dropProfile(profile))));
  }

  private start(number: number, port: number, tries: number): void {
    const profile = mkdtempSync(join(tmpdir(), 'fleet-rail-renderer-'));
    const address = `http://${LISTEN_ADDRESS}:${port}/pool?lend=${encodeURIComponent(`Server ${number}`)}`;
    const renderer = spawn(this.settings.browser, [...SWITCHES, `--user-data-dir=${profile}`, address], {
      stdio: 'ignore',
    });
    const begun = Date.now();
    this.running.set(renderer, profile);
    let gone = false;
    const end = (why: string) => {
      if (gone) return;
      gone = true;
      this.running.delete(renderer);
      if (this.over) return;
      void dropProfile(profile);
      const next = Date.now() - begun > 60_000 ? 0 : tries + 1;
      if (next >= MOST_TRIES) {
        this.log.error(`Renderer ${number} ended ${next} times at once and is not started again: ${why}`);
        return;
      }
      const wait = setTimeout(
        () => {
          this.waits.delete(wait);
          this.start(number, port, next);
        },
        AGAIN * 2 ** next,
      );
      this.waits.add(wait);
    };
    renderer.once('error', (error) => end(error.message));
    renderer.once('exit', (code, signal) => end(`it ended with ${code ?? signal}`));
  }
}

function ended(renderer: ChildProcess): Promise<unknown> {
  return renderer.exitCode !== null || renderer.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => renderer.once('exit', resolve).once('error', resolve));
}

/** Its helpers may write a moment longer; what cannot be deleted then is left to the system. */
async function dropProfile(profile: string): Promise<void> {
  await rm(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 50 }).catch(() => undefined);
}
