import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Api } from './api.js';
import { startServer, type OwnServer } from './own-server.js';

/** A server that faults are tried on, with data that go with it. */
export class FaultStage {
  readonly data = mkdtempSync(join(tmpdir(), 'fleet-rail-faults-'));
  private server: OwnServer | null = null;

  get api(): Api {
    if (this.server === null) throw new Error('The server is not started.');
    return new Api(this.server.url);
  }

  isAlive(): boolean {
    return this.server?.isAlive() ?? false;
  }

  async start(): Promise<void> {
    this.server = await startServer(this.data);
  }

  async kill(): Promise<void> {
    await this.server?.kill();
  }

  async end(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true });
  }
}
