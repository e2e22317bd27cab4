import { dropIsolation } from '../faults/pageFaults';
import type { Engine } from '../src/engine/engine';
import { apart, expect, facet, lay, look, openPhoto, openSample, portrait, settled, test, type } from './fixtures';

const kill = (page: import('@playwright/test').Page, i: number) =>
  page.evaluate((k) => (globalThis as unknown as { dermatexEngine: Engine }).dermatexEngine.pool.kill(k), i);

test('a worker killed during a drag: the picture is drawn all the same', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await facet(page, 'Blend');
  const slider = page.getByRole('slider', { name: 'Strength', exact: true });
  const box = (await slider.boundingBox())!;
  const middle = box.y + box.height / 2;
  await page.mouse.move(box.x + box.width * 0.75, middle);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, middle, { steps: 5 });
  await kill(page, 0);
  await page.mouse.move(box.x + 2, middle, { steps: 10 });
  await page.mouse.up();
  await type(page, 'Strength', '0');
  await page.waitForTimeout(6000);
  await settled(page);
  const bare = await look(page, 0.2, 0.2);
  await page.keyboard.press('Escape');
  await type(page, 'Strength', '100');
  await page.waitForTimeout(500);
  await settled(page);
  expect(apart(await look(page, 0.2, 0.2), bare)).toBeGreaterThan(4);
});

test('a worker killed during export: the file is whole', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG' }).click();
  await page.waitForTimeout(1500);
  const picture = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  await kill(page, 1);
  const first = await picture;
  const again = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const { default: sharp } = await import('sharp');
  const read = async (d: typeof first) =>
    sharp(await d.path())
      .raw()
      .toBuffer();
  expect(Buffer.compare(await read(first), await read(await again))).toBe(0);
});

for (const [phase, held] of [
  ['drawn', 'tiles'],
  ['encoded', 'encode'],
] as const)
  test(`an export can be stopped while it is ${phase}, and nothing is written`, { tag: '@phone' }, async ({ page }) => {
    // What that phase asks of the workers is kept from them once an export begins: on a fast machine nobody could stop it in time.
    await page.addInitScript((kind) => {
      const post = Worker.prototype.postMessage as (message: unknown, more?: unknown) => void;
      Worker.prototype.postMessage = function (this: Worker, message: { kind: string; question?: { call: string } }, more: never) {
        const holds = (globalThis as { holding?: boolean }).holding && (message.question?.call ?? message.kind) === kind;
        if (!holds) post.call(this, message, more);
      } as never;
    }, held);
    await openSample(page, 'The light at dusk');
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await page.getByRole('radio', { name: 'PNG' }).click();
    await expect(page.getByRole('img', { name: 'The light at dusk' })).toBeVisible();
    await page.evaluate(() => ((globalThis as { holding?: boolean }).holding = true));
    const written: string[] = [];
    page.on('download', (d) => written.push(d.suggestedFilename()));
    await page.getByRole('button', { name: 'Save the picture' }).click();
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(page.getByText('Stopped; nothing was written.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save the picture' })).toBeVisible();
    expect(written).toEqual([]);
    // The next one is whole.
    await page.evaluate(() => ((globalThis as { holding?: boolean }).holding = false));
    const picture = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name: 'Save the picture' }).click();
    expect((await picture).suggestedFilename()).toMatch(/\.png$/);
  });

test('a browser that cannot post shared memory draws without it, and says nothing', { tag: '@phone' }, async ({ page }) => {
  await page.addInitScript(() => {
    const post = Worker.prototype.postMessage as (message: unknown, more?: unknown) => void;
    Worker.prototype.postMessage = function (this: Worker, message: { memory?: unknown }, more: never) {
      if (message.memory) throw new DOMException('The object can not be cloned.', 'DataCloneError');
      post.call(this, message, more);
    } as never;
  });
  await openSample(page, 'The old keeper');
  expect(await page.evaluate(() => (globalThis as unknown as { dermatexEngine: Engine }).dermatexEngine.pool.shared)).toBe(false);
  expect((await look(page, 0.5, 0.2))[0]).toBeGreaterThan(40);
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('without isolation each worker has its own memory, and the picture is the same', { tag: '@phone' }, async ({ page, browser, baseURL }) => {
  await openSample(page, 'The old keeper');
  const want = await look(page, 0.5, 0.2);
  const context = await browser.newContext({ viewport: page.viewportSize()!, baseURL });
  const plain = await context.newPage();
  await dropIsolation(plain);
  await openSample(plain, 'The old keeper');
  expect(await plain.evaluate(() => crossOriginIsolated)).toBe(false);
  expect(apart(await look(plain, 0.5, 0.2), want)).toBeLessThan(1.5);
  await context.close();
});

test('a browser that cannot draw says so on the home screen, and keeps its pieces', { tag: '@phone' }, async ({ page }) => {
  await page.addInitScript(() => {
    WebAssembly.compile = () => Promise.reject(new WebAssembly.CompileError('invalid opcode 0xfd'));
  });
  await page.goto('/');
  await expect(page.getByRole('alert')).toContainText('This browser cannot draw here');
  await page.screenshot({ path: process.env.SHOTS ? `${process.env.SHOTS}/cannot.png` : undefined });
});
