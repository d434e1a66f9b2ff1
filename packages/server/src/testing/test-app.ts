import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { INestApplication } from '@nestjs/common';
import { createApp } from '../create-app.js';

/** A server on its own folder, for tests; it listens nowhere. */
export class TestApp {
  readonly folder = mkdtempSync(join(tmpdir(), 'fleet-rail-test-'));
  readonly data = join(this.folder, 'data');
  private app: INestApplication | null = null;

  constructor(private readonly lease = 20_000) {}

  async start(): Promise<void> {
    this.app = await createApp({
      dataFolder: this.data,
      demoFolder: join(this.folder, 'demo'),
      port: 0,
      webFolder: null,
      renderers: 0,
      browser: '',
      lease: this.lease,
    });
    await this.app.init();
  }

  /** A provider of the server, by its class. */
  get<Provider>(kind: abstract new (...args: never[]) => Provider): Provider {
    if (this.app === null) throw new Error('The server is not started.');
    return this.app.get<Provider>(kind);
  }

  async restart(): Promise<void> {
    await this.app?.close();
    await this.start();
  }

  /** Another machine: the same server on a folder with nothing in it. */
  async restartEmpty(): Promise<void> {
    await this.app?.close();
    rmSync(this.data, { recursive: true });
    await this.start();
  }

  async end(): Promise<void> {
    await this.app?.close();
    rmSync(this.folder, { recursive: true });
  }
}
