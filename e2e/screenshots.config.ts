import { defineConfig } from '@playwright/test';
import tests from './playwright.config.js';

const launch = tests.use?.launchOptions;

/** Takes the pictures in docs/screenshots from the demo data: `npm run screenshots`. They show letters as a graphics library draws them. */
export default defineConfig({
  ...tests,
  testMatch: '*.pictures.ts',
  // Each waits for the stage to rest, many times over.
  timeout: 180_000,
  use: {
    ...tests.use,
    launchOptions: { ...launch, args: launch?.args?.filter((arg) => arg !== '--disable-gpu-compositing') },
  },
});
