import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium.mjs';

const port = 4317;

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Two cores: pages with worker pools would only wait for one another.
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'build/playwright.json' }]],
  use: {
    baseURL: `http://localhost:${port}`,
    launchOptions: chromiumOptions,
    acceptDownloads: true,
  },
  projects: [
    { name: 'phone', use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
    { name: 'wide', use: { viewport: { width: 1280, height: 800 } } },
  ],
  webServer: {
    command: `node build/server-main.mjs ${port}`,
    port,
    env: { DERMATEX_ROOT: process.cwd(), PORT: String(port) },
    reuseExistingServer: false,
  },
});
