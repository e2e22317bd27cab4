import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { captureData, tagged } from './capture';
import { inspect } from './inspect';
import { writeTiff } from './tiffWriter';

const [W, H] = [61, 40];
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-exif-'));
const image = (channels: 3 | 4 = 3) => sharp({ create: { width: W, height: H, channels, background: { r: 162, g: 66, b: 61, alpha: 0.5 } } });
const kinds = ['jpeg', 'png', 'webp'] as const;
const camera = {
  IFD0: { Make: 'Skerry Light', Model: 'Lantern 1', Orientation: '1', Artist: 'A. Keeper' },
  IFD2: { FNumber: '28/10', ExposureTime: '1/125', DateTimeOriginal: '2024:10:03 18:20:11' },
};
/** A photo with capture data, lying on its side. */
async function photo(kind: (typeof kinds)[number]): Promise<Buffer> {
  const bytes = await image().withExif(camera).toFormat(kind).toBuffer();
  // libvips turns what it writes upright: tag 0x0112, type 3 (SHORT), one value, in either order of bytes.
  const little = bytes.indexOf(Buffer.from([0x12, 0x01, 3, 0, 1, 0, 0, 0]));
  const big = bytes.indexOf(Buffer.from([0x01, 0x12, 0, 3, 0, 0, 0, 1]));
  if (little >= 0) bytes.writeUInt16LE(6, little + 8);
  else bytes.writeUInt16BE(6, big + 8);
  return bytes;
}
const exiftool = '/usr/bin/exiftool';
/** What exiftool reads of a file. */
function read(bytes: Uint8Array, ending: string): Record<string, unknown> {
  const file = path.join(folder, `one.${ending}`);
  writeFileSync(file, bytes);
  const { stdout } = spawnSync(exiftool, ['-json', '-n', file], { encoding: 'utf8' });
  return (JSON.parse(stdout) as Record<string, unknown>[])[0];
}

describe.each(kinds)('from a photo as %s', (from) => {
  it.each(kinds)('capture data goes into a %s, upright, and its pixels stay', async (to) => {
    const data = captureData(await photo(from));
    expect(data).not.toBeNull();
    const made = await image(to === 'jpeg' ? 3 : 4)
      .toFormat(to, { lossless: true } as object)
      .toBuffer();
    const out = tagged(made, `image/${to}`, { width: W, height: H, exif: data });
    expect(inspect(out, 'a')).toMatchObject({ type: `image/${to}`, width: W, height: H });
    const meta = await sharp(out).metadata();
    expect([meta.width, meta.height, meta.orientation ?? 1, meta.exif !== undefined]).toEqual([W, H, 1, true]);
    const [a, b] = await Promise.all([made, out].map((file) => sharp(file).raw().toBuffer()));
    expect(a.equals(b)).toBe(true);
  });
});

// npm test installs it.
(existsSync(exiftool) ? describe : describe.skip)('read by exiftool', () => {
  it.each(kinds)('camera, time and exposure are those of the photo, in a %s', async (to) => {
    const source = await photo('jpeg');
    const made = await image().toFormat(to).toBuffer();
    const out = read(tagged(made, `image/${to}`, { width: W, height: H, exif: captureData(source) }), to);
    const before = read(source, 'jpg');
    for (const name of ['Make', 'Model', 'Artist', 'FNumber', 'ExposureTime', 'DateTimeOriginal']) {
      expect([name, out[name]]).toEqual([name, before[name]]);
      expect(before[name]).toBeDefined();
    }
    expect([before.Orientation, out.Orientation]).toEqual([6, 1]);
    expect(out.Warning).toBeUndefined();
    if (to === 'png') expect(out.SRGBRendering).toBe(0);
    else expect([out.ProfileDescription, out.ColorSpaceData, out.ProfileVersion]).toEqual(['sRGB', 'RGB ', expect.anything()]);
  });
});

// npm test installs exiftool.
(existsSync(exiftool) ? describe : describe.skip)('capture data of TIFF files, read by exiftool', () => {
  const names = ['Make', 'Model', 'Artist', 'FNumber', 'ExposureTime', 'DateTimeOriginal'];
  const pixels = Uint8Array.from({ length: W * H * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 31) & 255));

  it.each(kinds)('goes into one from a %s, and the pixels stay', async (from) => {
    const source = await photo(from);
    const made = writeTiff({ pixels, width: W, height: H });
    const out = tagged(made, 'image/tiff', { width: W, height: H, exif: captureData(source) });
    const [was, is] = [read(source, from), read(out, 'tif')];
    for (const name of names) expect([name, is[name]]).toEqual([name, was[name]]);
    expect([is.Warning, is.Orientation ?? 1]).toEqual([undefined, 1]);
    expect(inspect(out, 'a')).toMatchObject({ type: 'image/tiff', width: W, height: H });
    const [a, b] = await Promise.all([made, out].map((file) => sharp(file).raw().toBuffer()));
    expect(a.equals(b)).toBe(true);
  });

  it('comes out of one that exiftool has written, in either order of bytes', async () => {
    for (const order of ['II', 'MM']) {
      const file = path.join(folder, `${order}.tif`);
      await image().tiff().toFile(file);
      const tags = ['-Make=Skerry Light', '-Model=Lantern 1', '-FNumber=2.8', '-GPSLatitude=57.5', '-GPSLatitudeRef=N', `-ExifByteOrder=${order}`];
      spawnSync(exiftool, ['-overwrite_original', ...tags, file]);
      const data = captureData(readFileSync(file));
      const out = read(tagged(await image().jpeg().toBuffer(), 'image/jpeg', { width: W, height: H, exif: data }), 'jpg');
      expect([out.Make, out.Model, out.FNumber, out.GPSLatitude, out.Warning]).toEqual(['Skerry Light', 'Lantern 1', 2.8, 57.5, undefined]);
    }
    expect(captureData(writeTiff({ pixels, width: W, height: H }))).toBeNull();
  });
});

it('sRGB stays what it is through the profile: littlecms, through sharp, changes no value by more than a level', async () => {
  const raw = Buffer.from(Array.from({ length: 64 * 64 * 3 }, (_, i) => (i * 7919) & 255));
  const made = await sharp(raw, { raw: { width: 64, height: 64, channels: 3 } })
    .webp({ lossless: true })
    .toBuffer();
  const out = tagged(made, 'image/webp', { width: 64, height: 64, exif: null });
  expect((await sharp(out).metadata()).hasProfile).toBe(true);
  const got = await sharp(out).toColourspace('srgb').removeAlpha().raw().toBuffer();
  expect(Math.max(...got.map((v, i) => Math.abs(v - raw[i])))).toBeLessThanOrEqual(1);
});

it('a photo without capture data, or with a damaged block, passes none on', async () => {
  expect(captureData(await image().jpeg().toBuffer())).toBeNull();
  const bytes = await photo('jpeg');
  const at = bytes.indexOf('Exif');
  for (const damage of [
    [8, 0xff],
    [10, 0xff],
    [14, 0xff],
  ]) {
    const damaged = Buffer.from(bytes);
    damaged.fill(damage[1], at + damage[0], at + damage[0] + 4);
    expect(captureData(damaged)).toBeNull();
  }
});
