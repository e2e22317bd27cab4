import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { deepValues } from '../src/testing/deepValues';
import { expect, openPhoto, settled, test, type Page } from './fixtures';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-formats-'));
const file = (name: string) => path.join(folder, name);
const [W, H] = [1024, 96];
/** 1024 steps, each 64 of 65536 levels. */
const ramp = Uint16Array.from({ length: W * H * 3 }, (_, i) => (Math.floor(i / 3) % W) * 64 + 5);
const deep = () => sharp(ramp, { raw: { width: W, height: H, channels: 3 } }).toColourspace('rgb16');

async function exportAs(page: Page, format: string, to: string, bits?: string): Promise<void> {
  await settled(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: format, exact: true }).click();
  if (bits) await page.getByRole('radio', { name: bits, exact: true }).click();
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const made = await download;
  await made.saveAs(file(to));
  expect(path.extname(made.suggestedFilename())).toBe(path.extname(to));
  await page.getByRole('button', { name: 'Back to the bench' }).click();
}

/** The largest difference, in levels of 65536, from the ramp. */
const offRamp = async (name: string) => (await deepValues(file(name))).reduce((most, v, i) => Math.max(most, Math.abs(v - ramp[i])), 0);

test(
  'a TIFF of 16 bits is opened, and goes out with all of its 1024 steps as PNG and as TIFF; the choice is remembered',
  { tag: '@phone' },
  async ({ page }) => {
    await deep().tiff({ compression: 'lzw', predictor: 'horizontal' }).toFile(file('ramp.tif'));
    await openPhoto(page, file('ramp.tif'));
    await exportAs(page, 'PNG', 'page.png', '16 bits');
    expect(await sharp(file('page.png')).metadata()).toMatchObject({ format: 'png', width: W, height: H, depth: 'ushort' });
    expect(await offRamp('page.png')).toBe(0);
    await exportAs(page, 'TIFF', 'page.tif', '16 bits');
    expect(await sharp(file('page.tif')).metadata()).toMatchObject({ format: 'tiff', width: W, height: H, channels: 3, depth: 'ushort' });
    expect(await offRamp('page.tif')).toBe(0);
    await page.reload();
    await settled(page);
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await expect(page.getByRole('radio', { name: 'TIFF' })).toBeChecked();
    await expect(page.getByRole('radio', { name: '16 bits' })).toBeChecked();
  },
);

test('an AVIF is opened, and goes out as WebP', { tag: '@wide' }, async ({ page }) => {
  await sharp('demo/photos/keeper.jpg').resize(300, 375).avif({ quality: 90 }).toFile(file('keeper.avif'));
  await openPhoto(page, file('keeper.avif'));
  await exportAs(page, 'WebP', 'page.webp');
  expect(await sharp(file('page.webp')).metadata()).toMatchObject({ format: 'webp', width: 300, height: 375 });
  const [a, b] = await Promise.all(['keeper.avif', 'page.webp'].map((name) => sharp(file(name)).removeAlpha().raw().toBuffer()));
  expect(a.reduce((sum, v, i) => sum + Math.abs(v - b[i]), 0) / a.length).toBeLessThan(3);
});

test('capture data goes with the picture, upright and in sRGB, unless it is not wanted', { tag: '@wide' }, async ({ page }) => {
  await sharp('demo/photos/keeper.jpg')
    .resize(300, 375)
    .withExif({ IFD0: { Make: 'Skerry Light', Artist: 'A. Keeper' } })
    .jpeg()
    .toFile(file('camera.jpg'));
  await openPhoto(page, file('camera.jpg'));
  await exportAs(page, 'JPEG', 'with.jpg');
  const made = await sharp(file('with.jpg')).metadata();
  expect(made.exif?.includes('Skerry Light')).toBe(true);
  expect(made.hasProfile).toBe(true);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('switch', { name: 'With capture data' }).click();
  await page.getByRole('button', { name: 'Back to the bench' }).click();
  await exportAs(page, 'JPEG', 'without.jpg');
  expect((await sharp(file('without.jpg')).metadata()).exif).toBeUndefined();
});
