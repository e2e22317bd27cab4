import sharp, { type Sharp } from 'sharp';
import { numbers } from '@/testing/machine';
import { lacksData } from './jpegWalk';

const random = numbers(12);
/** Soft shapes with grain, so that blocks have both runs of zeros and long codes. */
const picture = (width: number, height: number, channels: 1 | 3 | 4 = 3) =>
  sharp(Buffer.from(Array.from({ length: width * height * channels }, (_, i) => 120 + 80 * Math.sin(i / 900) + 30 * random() * +(i % 7 > 3))), {
    raw: { width, height, channels },
  });

const kinds: [string, () => Sharp][] = [
  ['baseline, colour at half size', () => picture(203, 151).jpeg()],
  ['baseline, full colour', () => picture(203, 151).jpeg({ chromaSubsampling: '4:4:4', quality: 95 })],
  ['grey', () => picture(203, 151).toColourspace('b-w').jpeg()],
  ['progressive', () => picture(203, 151).jpeg({ progressive: true })],
  ['progressive with many scans', () => picture(203, 151).jpeg({ mozjpeg: true, quality: 60 })],
  ['progressive grey', () => picture(65, 17).toColourspace('b-w').jpeg({ progressive: true })],
  ['one pixel', () => picture(1, 1).jpeg()],
  ['flat', () => sharp({ create: { width: 400, height: 300, channels: 3, background: '#345678' } }).jpeg()],
];

it.each(kinds)('finds no data missing in a whole JPEG written by libjpeg: %s', async (_name, make) => {
  expect(lacksData(await make().toBuffer())).toBe(false);
});

it('goes on at restart markers (T.81, F.2.2.4): written by hand behind every unit of a grey picture of two blocks', () => {
  // Tables of one code each: DC of no bits ("0"), and the end of the block ("0").
  const table = (kind: number) => [0xff, 0xc4, 0, 20, kind, 1, ...Array<number>(15).fill(0), 0];
  const head = [0xff, 0xd8, 0xff, 0xc0, 0, 11, 8, 0, 8, 0, 16, 1, 1, 0x11, 0, ...table(0x00), ...table(0x10), 0xff, 0xdd, 0, 4, 0, 1];
  const scan = [0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0];
  expect(lacksData(Uint8Array.from([...head, ...scan, 0x3f, 0xff, 0xd0, 0x3f, 0xff, 0xd9]))).toBe(false);
  expect(lacksData(Uint8Array.from([...head, ...scan, 0x3f, 0xff, 0xd9]))).toBe(true);
  expect(lacksData(Uint8Array.from([...head, ...scan, 0x3f, 0xff, 0xd0, 0x3f]))).toBe(true);
});

it.each(kinds.slice(0, 5))('notices all damage that libjpeg warns about, and some that it does not: %s', async (_name, make) => {
  const good = await make().toBuffer();
  const from = good.indexOf(Buffer.from([0xff, 0xda])) + 16;
  let [warned, noticed, unnoticed] = [0, 0, 0];
  for (let i = 0; i < 60; i++) {
    const at = from + Math.floor(random() * (good.length - from - 40));
    const cut = 1 + Math.floor(random() * 30);
    const bad = [
      () => Buffer.concat([good.subarray(0, at), good.subarray(at + cut)]),
      () => Buffer.concat([good.subarray(0, at), Buffer.alloc(cut), good.subarray(at + cut)]),
      () => Buffer.concat([good.subarray(0, at), Buffer.from([0xff, 0xd9])]),
      () => Buffer.concat([good.subarray(0, at), Buffer.from([0x55, 0xaa, 0x13]), good.subarray(at)]),
    ][i % 4]();
    const warns = await sharp(bad)
      .raw()
      .toBuffer()
      .then(
        () => false,
        () => true,
      );
    const lacks = lacksData(bad);
    warned += +warns;
    noticed += +(lacks === true);
    unnoticed += +(warns && !lacks);
  }
  expect(unnoticed).toBe(0);
  expect(warned).toBeGreaterThan(8);
  expect(noticed).toBeGreaterThanOrEqual(warned);
});

it('notices a picture that claims far more than its data holds', async () => {
  const bytes = await picture(64, 64).jpeg().toBuffer();
  const frame = bytes.indexOf(Buffer.from([0xff, 0xc0]));
  bytes.writeUInt16BE(7000, frame + 5);
  bytes.writeUInt16BE(7000, frame + 7);
  expect(lacksData(bytes)).toBe(true);
});
