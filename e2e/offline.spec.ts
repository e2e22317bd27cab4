import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, renameSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { expect, openSample, settled, test } from './fixtures';

test.use({ serviceWorkers: 'allow' });

const port = 4000 + (process.pid % 300);
const home = `http://localhost:${port}`;
let server: ChildProcess;

async function serve(root = process.cwd()): Promise<void> {
  server = spawn(process.execPath, ['build/server-main.mjs', String(port)], {
    env: { ...process.env, DERMATEX_ROOT: root, PORT: String(port) },
    stdio: 'ignore',
  });
  await expect
    .poll(
      () =>
        fetch(`${home}/health`).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 60_000 },
    )
    .toBe(true);
}
const gone = () =>
  new Promise<void>((resolve) => {
    server.once('exit', () => resolve());
    server.kill();
  });

test.use({ baseURL: home });
test.afterEach(async () => {
  if (server.exitCode === null && !server.killed) await gone();
});

test(
  'installed, then the server is gone: a sample is opened, worked on and exported; what is installed is named and has its icons',
  { tag: '@phone' },
  async ({ page }) => {
    await serve();
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

/** A folder from which the server gives a version of the page; `put` changes it to another one at once. */
function versions() {
  const root = mkdtempSync(path.join(os.tmpdir(), 'dermatex-versions-'));
  for (const name of ['demo', 'public', 'package.json']) symlinkSync(path.resolve(name), path.join(root, name));
  const page = (name: string) => path.join(root, name, 'index.html');
  return {
    root,
    /** @param isWhole - Else one of its files is not the one that its list names. */
    make(name: string, isWhole = true): void {
      const folder = path.join(root, name);
      cpSync('dist', folder, { recursive: true });
      for (const packed of ['index.html', 'sw.js'].flatMap((file) => [`${file}.br`, `${file}.gz`]))
        rmSync(path.join(folder, packed), { force: true });
      writeFileSync(page(name), readFileSync(page(name), 'utf8').replace('<head>', `<head><meta name="made" content="${name}" />`));
      execFileSync(process.execPath, ['-e', "import('./scripts/offline.mjs').then((m) => m.writeServiceWorker(process.argv[1]))", folder]);
      if (!isWhole) writeFileSync(page(name), readFileSync(page(name), 'utf8').replace('</body>', '<p>Half copied</p></body>'));
    },
    put(name: string): void {
      const next = path.join(root, 'next');
      symlinkSync(path.join(root, name), next);
      renameSync(next, path.join(root, 'dist'));
    },
  };
}

test(
  'an update takes over once no tab of the old version is open, never mixes two, and is left alone when it is not whole',
  { tag: '@wide' },
  async ({ context }) => {
    test.setTimeout(120_000);
    const { root, make, put } = versions();
    await make('one');
    await make('broken', false);
    await make('two');
    put('one');
    await serve(root);
    const made = (page: import('@playwright/test').Page) => page.evaluate(() => document.querySelector('meta[name=made]')?.getAttribute('content'));
    const update = (page: import('@playwright/test').Page) =>
      page.evaluate(async () => {
        const registration = await navigator.serviceWorker.ready;
        await registration.update().catch(() => undefined);
        const { installing } = registration;
        if (installing)
          await new Promise<void>((resolve) => installing.addEventListener('statechange', () => installing.state !== 'installing' && resolve()));
        return { isWaiting: registration.waiting !== null, kept: await caches.keys() };
      });
    const first = await context.newPage();
    await first.goto(home);
    await first.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 60_000 });
    expect(await made(first)).toBe('one');

    put('broken');
    const broken = await update(first);
    expect(broken.isWaiting).toBe(false);
    expect(broken.kept).toHaveLength(1);

    put('two');
    expect((await update(first)).isWaiting).toBe(true);
    // The old version stays whole for as long as it is open, in new tabs too.
    await first.reload();
    const second = await context.newPage();
    await second.goto(home);
    expect([await made(first), await made(second)]).toEqual(['one', 'one']);
    expect(await first.evaluate(async () => (await (await fetch('/index.html')).text()).includes('content="one"'))).toBe(true);
    await first.close();
    await second.close();

    const third = await context.newPage();
    await expect
      .poll(async () => {
        await third.goto('about:blank');
        await third.goto(home);
        return made(third);
      })
      .toBe('two');
    await expect.poll(() => third.evaluate(() => caches.keys())).toHaveLength(1);
  },
);
