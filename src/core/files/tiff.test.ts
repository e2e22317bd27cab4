import sharp, { type TiffOptions } from 'sharp';
import { BadFile, inspect } from './inspect';
import { tiffHeader } from './tiffHeader';
import { writeTiff } from './tiffWriter';

const [W, H] = [301, 203];
/** Values that use all of the scale; the last channel is opaque. */
const made = <A extends Uint8Array | Uint16Array>(out: A, most: number, clear: boolean): A => {
  for (let i = 0; i < out.length; i++) out[i] = i % 4 === 3 && !clear ? most : (i * 7919 + (i >> 3) * 31) % (most + 1);
  return out;
};
const deep = (clear: boolean) => made(new Uint16Array(W * H * 4), 65535, clear);
const plain = (clear: boolean) => made(new Uint8Array(W * H * 4), 255, clear);

describe('a TIFF that is written', () => {
  it.each([
    ['8 bits', plain(false), 3],
    ['8 bits with alpha', plain(true), 4],
    ['16 bits', deep(false), 3],
    ['16 bits with alpha', deep(true), 4],
  ] as const)('%s: libtiff, through sharp, reads it to the level', async (_name, pixels, channels) => {
    const file = Buffer.from(writeTiff({ pixels, width: W, height: H }));
    const wide = pixels instanceof Uint16Array;
    expect(await sharp(file).metadata()).toMatchObject({ format: 'tiff', width: W, height: H, channels, depth: wide ? 'ushort' : 'uchar' });
    const { data } = await sharp(file)
      .keepIccProfile()
      .toColourspace(wide ? 'rgb16' : 'srgb')
      .raw({ depth: wide ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const got = wide ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
    const wanted = channels === 4 ? pixels : pixels.filter((_, i) => i % 4 < 3);
    expect(
      Buffer.compare(
        Buffer.from(new Uint8Array(got.buffer, got.byteOffset, got.byteLength)),
        Buffer.from(new Uint8Array(wanted.buffer, wanted.byteOffset, wanted.byteLength)),
      ),
    ).toBe(0);
    expect(inspect(file, 'a.tif')).toEqual({ type: 'image/tiff', width: W, height: H, deep: wide });
  });
});

describe('the header of a TIFF', () => {
  const libtiff = (options: TiffOptions = {}) =>
    sharp(plain(false), { raw: { width: W, height: H, channels: 4 } })
      .removeAlpha()
      .tiff(options)
      .toBuffer();

  it.each([{ compression: 'none' }, { compression: 'lzw' }, { compression: 'deflate', tile: true, tileWidth: 64, tileHeight: 64 }] as TiffOptions[])(
    'is read as libtiff writes it: %j',
    async (options) => {
      const bytes = await libtiff(options);
      expect(inspect(bytes, 'a.tif')).toEqual({ type: 'image/tiff', width: W, height: H, deep: false });
    },
  );

  it('is read in either order of bytes (TIFF 6.0, section 2)', () => {
    const file = new Uint8Array(8 + 2 + 12 * 4 + 4 + 6);
    const view = new DataView(file.buffer);
    file.set([0x4d, 0x4d, 0, 42]);
    view.setUint32(4, 8);
    view.setUint16(8, 4);
    [
      [256, 3, 1, 20 << 16],
      [257, 4, 1, 10],
      [273, 4, 1, 62],
      [279, 3, 1, 6 << 16],
    ].forEach(([tag, type, count, value], i) => {
      view.setUint16(10 + 12 * i, tag);
      view.setUint16(12 + 12 * i, type);
      view.setUint32(14 + 12 * i, count);
      view.setUint32(18 + 12 * i, value);
    });
    expect(tiffHeader(file)).toEqual({ width: 20, height: 10, bits: [1], photometric: 2, parts: [[62, 6]] });
  });

  it('of a file that is cut short, or damaged anywhere, ends in a sentence or in a size; nothing is read outside the file', async () => {
    const bytes = await libtiff({ compression: 'lzw' });
    expect(() => inspect(bytes.subarray(0, bytes.length / 2), 'a.tif')).toThrow(/“a.tif” (is cut short|cannot be read)/);
    let seed = 7;
    const chance = (n: number) => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) % n;
    for (let i = 0; i < 500; i++) {
      const damaged = Buffer.from(bytes);
      for (let k = 0; k < 8; k++) damaged[4 + chance(300)] = chance(256);
      const at = damaged.readUInt32LE(4);
      if (at < damaged.length) damaged[Math.min(damaged.length - 1, at + chance(160))] = chance(256);
      try {
        inspect(damaged, 'a.tif');
      } catch (error) {
        expect(error).toBeInstanceOf(BadFile);
      }
    }
  });

  it('in the colours of print is refused', async () => {
    const bytes = await sharp(plain(false), { raw: { width: W, height: H, channels: 4 } })
      .removeAlpha()
      .toColourspace('cmyk')
      .tiff()
      .toBuffer();
    expect(() => inspect(bytes, 'a.tif')).toThrow('“a.tif” is in the colours of print (CMYK); save it in RGB first and open that.');
  });
});

it('an AVIF as libheif writes it is told by its brand, its size read, and missing data seen', async () => {
  const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#a2423d' } })
    .avif()
    .toBuffer();
  expect(inspect(bytes, 'a.avif')).toEqual({ type: 'image/avif', width: 60, height: 40, deep: false });
  expect(() => inspect(bytes.subarray(0, bytes.length - 20), 'a.avif')).toThrow(/is cut short/);
});
