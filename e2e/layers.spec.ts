import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { apart, expect, look, openSample, settled, test, type Page } from './fixtures';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-layers-'));
const file = (name: string) => path.join(folder, name);

async function open(page: Page, name: string): Promise<void> {
  await page.goto('/');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Open a photo' }).click();
  await (await chooser).setFiles(file(name));
}

test('a piece goes out as OpenRaster with a layer a coat, and opens again as it was', { tag: '@phone' }, async ({ page }) => {
  test.setTimeout(180_000);
  await openSample(page, 'The old keeper');
  await settled(page);
  const before = await look(page, 0.15, 0.2);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await page.getByRole('button', { name: 'Save layers' }).click();
  const made = await download;
  expect(made.suggestedFilename()).toBe('The-old-keeper.ora');
  await made.saveAs(file('keeper.ora'));
  const bytes = readFileSync(file('keeper.ora'));
  // The kind of file is told by its first entry, stored: its name begins at byte 30 (OpenRaster 0.0.6, file layout).
  expect(bytes.subarray(30, 38).toString()).toBe('mimetype');
  expect(bytes.readUInt16LE(8)).toBe(0);
  const files = unzipSync(bytes);
  expect(strFromU8(files.mimetype)).toBe('image/openraster');
  const xml = strFromU8(files['stack.xml']);
  expect([...xml.matchAll(/<layer name="([^"]*)"/g)].map(([, name]) => name)).toEqual(['Craquelure', 'Aged, stained paper', 'The photo']);
  for (const [, src] of xml.matchAll(/src="([^"]*)"/g)) {
    const { width, height, channels } = await sharp(Buffer.from(files[src])).metadata();
    expect([width, height, channels]).toEqual([1200, 1500, 4]);
  }
  const merged = await sharp(Buffer.from(files['mergedimage.png'])).metadata();
  expect([merged.width, merged.height]).toEqual([1200, 1500]);
  expect(Math.max((await sharp(Buffer.from(files['Thumbnails/thumbnail.png'])).metadata()).height ?? 0)).toBe(256);

  await open(page, 'keeper.ora');
  await expect(page).toHaveURL(/\/piece\//);
  await settled(page);
  expect(apart(await look(page, 0.15, 0.2), before)).toBeLessThan(1);
  for (const card of ['card-0', 'card-1']) await expect(page.getByTestId(card)).toBeVisible();
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Craquelure · multiply/);
});

test(
  'another program’s file opens with a coat a layer: stacks, offsets, hidden layers and modes that nobody knows',
  { tag: '@wide' },
  async ({ page }) => {
    const square = (width: number, height: number, colour: string, alpha = 1) =>
      sharp({ create: { width, height, channels: 4, background: { ...{ r: 0, g: 0, b: 0 }, ...rgb(colour), alpha } } })
        .png()
        .toBuffer();
    const rgb = (hex: string) => ({ r: parseInt(hex.slice(1, 3), 16), g: parseInt(hex.slice(3, 5), 16), b: parseInt(hex.slice(5, 7), 16) });
    const xml = `<?xml version="1.0"?><image w="300" h="200"><stack>
    <layer name="Glitter" src="data/c.png" x="200" y="100" composite-op="vendor:glitter"/>
    <stack x="50" y="50"><layer name="Shade" src="data/b.png" composite-op="svg:multiply" opacity="0.5"/></stack>
    <layer name="Secret" src="data/c.png" visibility="hidden"/>
    <layer name="Ground" src="data/a.png"/>
  </stack></image>`;
    const zip = zipSync({
      mimetype: [strToU8('image/openraster'), { level: 0 }],
      'stack.xml': strToU8(xml),
      'data/a.png': new Uint8Array(await square(300, 200, '#c8c8c8')),
      'data/b.png': new Uint8Array(await square(100, 100, '#000000')),
      'data/c.png': new Uint8Array(await square(60, 60, '#ff0000')),
    });
    writeFileSync(file('other.ora'), zip);
    await open(page, 'other.ora');
    await expect(page).toHaveURL(/\/piece\//);
    await settled(page);
    await expect(page.getByTestId('card-0')).toHaveAccessibleName(/Secret/);
    await page.getByRole('button', { name: 'Open Group', exact: true }).click();
    await expect(page.getByTestId('card-1.0')).toHaveAccessibleName(/Shade · multiply/);
    await expect(page.getByTestId('card-2')).toHaveAccessibleName(/Glitter · normal/);
    const at = (x: number, y: number) => look(page, x / 300, y / 200, 2);
    expect(apart(await at(10, 10), [200, 200, 200])).toBeLessThan(2);
    expect(apart(await at(100, 100), [100, 100, 100])).toBeLessThan(2);
    expect(apart(await at(230, 130), [255, 0, 0])).toBeLessThan(2);

    // What is damaged is told, and no piece is made of it.
    for (const [name, more, says] of [
      ['list.ora', { 'stack.xml': strToU8('<image w="1"') }, /“list.ora” cannot be read: its list of layers is damaged/],
      ['picture.ora', { 'data/a.png': strToU8('Dear keeper') }, /A layer of “picture.ora” cannot be decoded/],
    ] as const) {
      writeFileSync(file(name), zipSync({ ...unzipSync(zip), ...more }));
      await open(page, name);
      await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible();
    }
    await expect(page.getByTestId('piece-card')).toHaveCount(1);
  },
);
