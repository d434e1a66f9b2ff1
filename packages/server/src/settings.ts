import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Where the server keeps its data and what it serves; all of it follows from two environment variables. */
export interface Settings {
  /** Holds the database and the models. `FLEET_RAIL_DATA`; by default `data` in the project. */
  readonly dataFolder: string;
  /** `FLEET_RAIL_PORT`; by default 4170. 0 takes any free port. */
  readonly port: number;
  /** The built web application, or null where it is not built. */
  readonly webFolder: string | null;
  /** The demo's models and shots. */
  readonly demoFolder: string;
}

/** The address the server listens on, and the only one. */
export const LISTEN_ADDRESS = '127.0.0.1';

/** The largest model that is taken, bytes. */
export const MODEL_LIMIT = 64 * 1024 * 1024;

/** @throws Error where `FLEET_RAIL_PORT` is no port */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const port = Number(env.FLEET_RAIL_PORT ?? 4170);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new Error(`FLEET_RAIL_PORT: found "${env.FLEET_RAIL_PORT}"; expected a port from 0 to 65535`);
  }
  const root = fileURLToPath(new URL('../../../', import.meta.url));
  const webFolder = join(root, 'packages/web/dist');
  return {
    dataFolder: resolve(env.FLEET_RAIL_DATA || join(root, 'data')),
    port,
    webFolder: existsSync(join(webFolder, 'index.html')) ? webFolder : null,
    demoFolder: join(root, 'demo/made'),
  };
}
