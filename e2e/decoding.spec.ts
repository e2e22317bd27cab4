import { readPicture, sizeOf } from '../cli/pictures';
import CRC32 from 'crc-32';
import sharp from 'sharp';
import { expect, look, openPhoto, settled, test, type Page } from './fixtures';
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const image = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#a2423d' } });
/** A file whose Exif says an orientation, also one that does not exist. */
async function oriented(type: 'jpeg' | 'png' | 'webp', orientation: number): Promise<Buffer> {
  const bytes = await image().withMetadata({ orientation: 7 }).toFormat(type).toBuffer();
  // Tag 0x0112, type 3 (SHORT), one value, little or big endian.
  const at = [Buffer.from([0x12, 0x01, 3, 0, 1, 0, 0, 0, 7]), Buffer.from([0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 7])].map((tag) => bytes.indexOf(tag));
  if (at[0] >= 0) bytes.writeUInt16LE(orientation, at[0] + 8);
  else if (at[1] >= 0) bytes.writeUInt16BE(orientation, at[1] + 8);
  else throw new Error(`No orientation in the ${type}.`);
  // A PNG's chunk has a check sum.
  const chunk = type === 'png' ? bytes.indexOf('eXIf') : -1;
  if (chunk > 0) {
    const end = chunk + 4 + bytes.readUInt32BE(chunk - 4);
    bytes.writeUInt32BE(CRC32.buf(bytes.subarray(chunk, end)) >>> 0, end);
  }
  return bytes;
}
const sizeOnPage = (page: Page, bytes: Buffer, type: string) =>
  page.evaluate(
    async ([base64, mime]) => {
      const blob = await (await fetch(`data:${mime};base64,${base64}`)).blob();
      const { width, height } = await createImageBitmap(blob, { imageOrientation: 'from-image' });
      return [width, height];
    },
    [bytes.toString('base64'), `image/${type}`] as const,
  );

test(
  'the page and the command line turn pictures alike, by every orientation that there is and some that there are not',
  { tag: '@wide' },
  async ({ page }) => {
    await page.goto('/');
    const file = path.join(os.tmpdir(), `dermatex-oriented-${process.pid}`);
    for (const type of ['jpeg', 'png', 'webp'] as const)
      for (const orientation of [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 65535]) {
        const bytes = await oriented(type, orientation);
        writeFileSync(file, bytes);
        const { width, height } = await sizeOf(file);
        expect([type, orientation, ...(await sizeOnPage(page, bytes, type))]).toEqual([type, orientation, width, height]);
      }
  },
);

test(
  'a JPEG that is turned by its Exif data, and a WebP that browsers do not turn, are opened with the size that is seen',
  { tag: '@phone' },
  async ({ page }) => {
    for (const [type, size] of [
      ['jpeg', /40 × 60/],
      ['webp', /60 × 40/],
    ] as const) {
      const file = path.join(os.tmpdir(), `dermatex-turned-${process.pid}.${type}`);
      writeFileSync(file, await oriented(type, 6));
      await openPhoto(page, file);
      await page.getByTestId('card-photo').click();
      await page.getByRole('tab', { name: 'More' }).click();
      await expect(page.getByText(size)).toBeVisible();
    }
  },
);

test('a PNG without a profile is taken as sRGB whatever gamma it names, as on the command line', { tag: '@wide' }, async ({ page }) => {
  const plain = await sharp({ create: { width: 200, height: 200, channels: 3, background: '#405060' } })
    .png()
    .toBuffer();
  const chunk = Buffer.alloc(16);
  chunk.writeUInt32BE(4, 0);
  chunk.write('gAMA', 4, 'latin1');
  chunk.writeUInt32BE(100000, 8);
  chunk.writeUInt32BE(CRC32.buf(chunk.subarray(4, 12)) >>> 0, 12);
  // Behind the header's chunk.
  const bent = Buffer.concat([plain.subarray(0, 33), chunk, plain.subarray(33)]);
  const file = path.join(os.tmpdir(), `dermatex-gamma-${process.pid}.png`);
  writeFileSync(file, bent);
  const want = await sharp(bent).removeAlpha().raw().toBuffer();
  await openPhoto(page, file);
  await settled(page);
  (await look(page)).slice(0, 3).forEach((v, i) => expect(Math.abs(v - want[i])).toBeLessThanOrEqual(1));
});

test('16 bits with a profile: the page is less than a level, in the mean, from what sharp makes of it', { tag: '@wide' }, async ({ page }) => {
  const [width, height] = [256, 64];
  // Every red and green, at three blues.
  const ramp = new Uint16Array(width * height * 3);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) ramp.set([x * 257, y * 1040, ((x + y) % 3) * 25000 + 5000], (y * width + x) * 3);
  const bytes = await sharp(ramp, { raw: { width, height, channels: 3 } })
    .toColourspace('rgb16')
    .withIccProfile('p3', { attach: true })
    .png()
    .toBuffer();
  const { depth, icc } = await sharp(bytes).metadata();
  expect([depth, icc && icc.length > 100]).toEqual(['ushort', true]);
  const file = path.join(os.tmpdir(), `dermatex-deep-${process.pid}.png`);
  writeFileSync(file, bytes);
  const { data: want } = await readPicture(file, true);
  await page.goto('/');
  const got = await page.evaluate(async (base64) => {
    const blob = await (await fetch(`data:image/png;base64,${base64}`)).blob();
    // As the worker decodes it (src/engine/browser.worker.ts).
    const bitmap = await createImageBitmap(blob, { imageOrientation: 'from-image', premultiplyAlpha: 'none', colorSpaceConversion: 'default' });
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    return [...context.getImageData(0, 0, bitmap.width, bitmap.height).data];
  }, bytes.toString('base64'));
  let sum = 0;
  let most = 0;
  got.forEach((v, i) => {
    sum += Math.abs(v - want[i]);
    most = Math.max(most, Math.abs(v - want[i]));
  });
  console.log(`16 bits with a profile: mean ${(sum / got.length).toFixed(3)}, most ${most} levels`);
  expect(sum / got.length).toBeLessThan(1);
  await openPhoto(page, file);
});
