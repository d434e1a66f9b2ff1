import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

/** Another one where two runs share a machine. */
const PORT = Number(process.env.FLEET_RAIL_E2E_PORT ?? 4317);

/** One real server on a database of its own, made anew for each run; Debian's Chromium. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'results',
  fullyParallel: false,
  // WebGL runs in software: more than one browser at a time would only starve the others.
  workers: 1,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 15_000 },
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 15_000,
    trace: 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: 'node packages/server/dist/main.js',
    cwd: new URL('..', import.meta.url).pathname,
    url: `http://127.0.0.1:${PORT}/api/shots`,
    reuseExistingServer: false,
    timeout: 60_000,
    env: {
      FLEET_RAIL_PORT: String(PORT),
      FLEET_RAIL_DATA: mkdtempSync(join(tmpdir(), 'fleet-rail-e2e-')),
      // A taker that is gone is missed soon.
      FLEET_RAIL_LEASE: '3000',
    },
  },
});
