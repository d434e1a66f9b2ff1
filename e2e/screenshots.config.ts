import { defineConfig } from '@playwright/test';
import tests from './playwright.config.js';

/** Takes the pictures in docs/screenshots from the demo data: `npm run screenshots`. */
export default defineConfig({ ...tests, testMatch: '*.pictures.ts' });
