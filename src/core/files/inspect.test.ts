import sharp from 'sharp';
import { BadFile, inspect } from './inspect';

const image = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#a2423d' } });
const says = (bytes: Uint8Array, name = 'x.jpg') => {
  try {
    inspect(bytes, name);
  } catch (error) {
    expect(error).toBeInstanceOf(BadFile);
    return (error as Error).message;
  }
  return null;
};

it.each([
  ['image/png', () => image().png()],
  ['image/jpeg', () => image().jpeg()],
  ['image/webp', () => image().webp()],
])('reads the header of %s as libvips writes it', async (type, make) => {
  const bytes = await make().toBuffer();
  expect(inspect(bytes, 'a')).toEqual({ type, width: 60, height: 40, deep: false });
});

it('sees 16 bits in a PNG as libvips writes it', async () => {
  const raw = { raw: { width: 2, height: 2, channels: 3 as const } };
  const bytes = await sharp(
    Uint16Array.from({ length: 12 }, (_, i) => i * 5000),
    raw,
  )
    .toColourspace('rgb16')
    .png()
    .toBuffer();
  expect(inspect(bytes, 'a')).toEqual({ type: 'image/png', width: 2, height: 2, deep: true });
});

it('gives the size as stored: turning by Exif is the decoder’s', async () => {
  const bytes = await image().withMetadata({ orientation: 6 }).jpeg().toBuffer();
  expect(inspect(bytes, 'a.jpg')).toMatchObject({ width: 60, height: 40 });
});

it('takes JPEGs with bytes that fill the room before a marker, or with a damaged Exif block (ITU-T T.81, B.1.1.2)', async () => {
  const bytes = await image().withMetadata({ orientation: 6 }).jpeg().toBuffer();
  const filled = Buffer.concat([bytes.subarray(0, 2), Buffer.from([0xff, 0xff, 0xff]), bytes.subarray(2)]);
  expect(inspect(filled, 'a.jpg')).toMatchObject({ width: 60, height: 40 });
  const exif = bytes.indexOf('Exif');
  expect(exif).toBeGreaterThan(0);
  const damaged = Buffer.from(bytes);
  damaged.fill(0xee, exif + 6, exif + 40);
  expect(inspect(damaged, 'a.jpg')).toMatchObject({ width: 60, height: 40 });
});

it('refuses a JPEG in the colours of print', async () => {
  const bytes = await image().toColourspace('cmyk').jpeg().toBuffer();
  expect(says(bytes)).toBe('“x.jpg” is in the colours of print (CMYK); save it in RGB first and open that.');
});

it('tells files that are cut short, wherever they are cut', async () => {
  for (const make of [() => image().png(), () => image().jpeg(), () => image().webp()]) {
    const bytes = await make().toBuffer();
    for (const part of [0.5, 0.9]) expect(says(bytes.subarray(0, Math.floor(bytes.length * part)))).toMatch(/cut short|header is damaged/);
    expect(says(bytes.subarray(0, bytes.length - 1))).toMatch(/cut short/);
  }
});

it('refuses what is no picture, what is empty, and a camera’s raw file, each in one sentence', () => {
  const text = new TextEncoder();
  expect(says(text.encode('hello'))).toBe('“x.jpg” is not a PNG, JPEG, WebP, AVIF or TIFF picture; choose one of those.');
  expect(says(new Uint8Array(0))).toMatch(/is empty/);
  expect(says(text.encode('II*\0rest'), 'shot.NEF')).toMatch(/camera’s raw file/);
  expect(says(text.encode('\0\0\0\u0018ftypcrx rest'), 'shot.jpg')).toMatch(/camera’s raw file/);
});

it('refuses absurd dimensions by the header, before anything is decoded', async () => {
  const bytes = await image().png().toBuffer();
  const claim = (w: number, h: number) => {
    const copy = Buffer.from(bytes);
    copy.writeUInt32BE(w, 16);
    copy.writeUInt32BE(h, 20);
    return says(copy);
  };
  expect(claim(60000, 60000)).toMatch(/60000 × 60000 \(3600 megapixels\); pictures of up to 100 megapixels/);
  expect(claim(13000, 8000)).toMatch(/104 megapixels/);
  expect(claim(30001, 1)).toBe('“x.jpg” says it is 30001 × 1; sides of up to 30000 pixels can be opened.');
  expect(claim(0, 40)).toMatch(/no size/);
  expect(claim(8000, 6000)).toBeNull();
});
