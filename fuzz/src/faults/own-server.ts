import { spawn } from 'node:child_process';

const ROOT = new URL('../../..', import.meta.url).pathname;

/** The built application's server, on its own folder. */
export interface OwnServer {
  readonly url: string;
  /** Whether it still runs. */
  isAlive(): boolean;
  /** Ends it without a warning; comes back when it is gone. */
  kill(): Promise<void>;
}

/**
 * Starts a server, and comes back when it listens.
 *
 * @param data  its folder
 * @param port  0 takes any free one
 */
export async function startServer(data: string, port = 0): Promise<OwnServer> {
  const child = spawn(process.execPath, ['packages/server/dist/main.js'], {
    cwd: ROOT,
    env: {
      ...process.env,
      FLEET_RAIL_PORT: String(port),
      FLEET_RAIL_DATA: data,
      // A renderer that is gone is missed soon.
      FLEET_RAIL_LEASE: '3000',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const url = await new Promise<string>((resolve, reject) => {
    void gone.then(() => reject(new Error('The server ended before it listened.')));
    child.stdout.on('data', (text: Buffer) => {
      const at = /http:\/\/\S+(?=\/)/.exec(text.toString());
      if (at) resolve(at[0]);
    });
  });
  return {
    url,
    isAlive: () => child.exitCode === null && child.signalCode === null,
    kill: () => {
      child.kill('SIGKILL');
      return gone;
    },
  };
}
