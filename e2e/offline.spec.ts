import { spawn, type ChildProcess } from 'node:child_process';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { expect, openSample, settled, test } from './fixtures';

test.use({ serviceWorkers: 'allow' });

const port = 4000 + (process.pid % 300);
const home = `http://localhost:${port}`;
let server: ChildProcess;

async function serve(): Promise<void> {
  server = spawn(process.execPath, ['build/server-main.mjs', String(port)], {
    env: { ...process.env, DERMATEX_ROOT: process.cwd(), PORT: String(port) },
    stdio: 'ignore',
  });
  await expect
    .poll(
      () =>
        fetch(`${home}/health`).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 20_000 },
    )
    .toBe(true);
}
const gone = () =>
  new Promise<void>((resolve) => {
    server.once('exit', () => resolve());
    server.kill();
  });

test.use({ baseURL: home });
test.beforeEach(serve);
test.afterEach(async () => {
  if (server.exitCode === null && !server.killed) await gone();
});

test(
  'installed, then the server is gone: a sample is opened, worked on and exported; what is installed is named and has its icons',
  { tag: '@phone' },
  async ({ page }) => {
    await page.goto('/');
    const manifest = (await (await page.request.get('/manifest.webmanifest')).json()) as {
      name: string;
      start_url: string;
      icons: { src: string; sizes: string }[];
    };
    expect([manifest.name, manifest.start_url]).toEqual(['Dermatex', '/']);
    for (const { src, sizes } of manifest.icons.filter((icon) => icon.src.endsWith('.png'))) {
      const { width, height } = await sharp(await (await page.request.get(src)).body()).metadata();
      expect(`${width}x${height}`).toBe(sizes);
    }
    // It is kept once the page has rested, and answers from then on.
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 60_000 });
    await gone();
    await page.reload();
    expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
    await openSample(page, 'The old keeper');
    await page.getByTestId('card-1').click();
    await page
      .getByRole('button', { name: /^Hide / })
      .last()
      .click();
    await settled(page);
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    const download = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name: 'Save the picture' }).click();
    const file = path.join(os.tmpdir(), `dermatex-offline-${process.pid}.jpg`);
    await (await download).saveAs(file);
    expect(await sharp(file).metadata()).toMatchObject({ format: 'jpeg', width: 1200, height: 1500 });
    // Another screen, asked for by its address.
    await page.goto('/batch');
    await expect(page.getByRole('button', { name: 'Choose photos' })).toBeVisible();
  },
);
