import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Settings of the server, from a few environment variables. */
export interface Settings {
  /** Holds the database and the models. `FLEET_RAIL_DATA`; by default `data` in the project. */
  readonly dataFolder: string;
  /** `FLEET_RAIL_PORT`; by default 4170. 0 takes any free port. */
  readonly port: number;
  /** The built web application, or null where it is not built. */
  readonly webFolder: string | null;
  /** The demo's models and shots. */
  readonly demoFolder: string;
  /** Number of browsers that the server starts to render pictures. `FLEET_RAIL_RENDERERS` (formerly `FLEET_RAIL_TAKERS`); by default 0. */
  readonly renderers: number;
  /** The browser for that. `FLEET_RAIL_BROWSER`; by default where Debian has Chromium. */
  readonly browser: string;
  /** Milliseconds after which a renderer without a heartbeat loses its batch. `FLEET_RAIL_LEASE`; by default 20,000. */
  readonly lease: number;
}

/** The address the server listens on, and the only one. */
export const LISTEN_ADDRESS = '127.0.0.1';

/** The largest model that is taken, bytes. */
export const MODEL_LIMIT = 64 * 1024 * 1024;

/** The variable's name, and the one that earlier set-ups use. */
const RENDERERS = ['FLEET_RAIL_RENDERERS', 'FLEET_RAIL_TAKERS'];

/** @throws Error where a variable is not what it should be */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const whole = (name: string, usual: number, most: number, what: string): number => {
    const value = Number(env[name] ?? usual);
    if (Number.isInteger(value) && value >= 0 && value <= most) return value;
    throw new Error(`${name}: found "${env[name]}"; expected ${what} from 0 to ${most}`);
  };
  const root = fileURLToPath(new URL('../../../', import.meta.url));
  const webFolder = join(root, 'packages/web/dist');
  return {
    dataFolder: resolve(env.FLEET_RAIL_DATA || join(root, 'data')),
    port: whole('FLEET_RAIL_PORT', 4170, 65535, 'a port'),
    webFolder: existsSync(join(webFolder, 'index.html')) ? webFolder : null,
    demoFolder: join(root, 'demo/made'),
    renderers: whole(
      RENDERERS.find((name) => env[name] !== undefined) ?? RENDERERS[0],
      0,
      16,
      'a number of renderers',
    ),
    browser: env.FLEET_RAIL_BROWSER || '/usr/bin/chromium',
    lease: whole('FLEET_RAIL_LEASE', 20_000, 600_000, 'milliseconds'),
  };
}
