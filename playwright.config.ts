import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium.mjs';

// Another port lets two runs stand beside each other.
const port = Number(process.env.E2E_PORT ?? 4317);

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // The pages mostly wait for what they have asked for: two of them keep two cores busy.
  workers: 2,
  fullyParallel: true,
  // Ten times what the longest test needs on a quiet machine: a busy one must not fail it.
  timeout: 400_000,
  expect: { timeout: 40_000 },
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'build/playwright.json' }]],
  use: {
    baseURL: `http://localhost:${port}`,
    launchOptions: chromiumOptions,
    acceptDownloads: true,
    // Only the test of offline use waits for it; in the others it would fetch everything once more.
    serviceWorkers: 'block',
    // A control that is not there fails its test before the whole time is gone.
    actionTimeout: 60_000,
  },
  projects: [
    // A test runs at both sizes unless its tag names the one that it needs.
    { name: 'phone', grepInvert: /@wide/, use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
    { name: 'wide', grepInvert: /@phone/, use: { viewport: { width: 1280, height: 800 } } },
  ],
  webServer: {
    command: `node build/server-main.mjs ${port}`,
    port,
    env: { DERMATEX_ROOT: process.cwd(), PORT: String(port), DERMATEX_TEST: '1' },
    reuseExistingServer: false,
  },
});
