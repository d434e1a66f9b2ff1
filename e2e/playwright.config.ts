import { defineConfig } from '@playwright/test';

/** Milliseconds after which something is taken to hang. Speed is measured elsewhere: a slow machine fails no test. */
const HANGS = 60_000;

/** Debian's Chromium, in two browsers, each with its own server: see `support/test.ts`. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'results',
  fullyParallel: false,
  workers: 2,
  retries: 0,
  timeout: 4 * HANGS,
  expect: { timeout: HANGS },
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: HANGS,
    trace: 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // The page is put together by the processor in any case: it does so in half the time without a graphics library between.
        '--disable-gpu-compositing',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
