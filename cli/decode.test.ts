import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import type { Machine } from '@/core/image/machine';
import { numbers } from '@/testing/machine';
import type { Engine } from '@/engine/engine';
import { nodeEngine } from '@/engine/node';
import { decodeFile } from './decode';
import { Refused } from './files';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-decode-'));
const file = (name: string) => path.join(folder, name);
const [W, H] = [150, 101];
const chance = numbers(20);
const pixels = Uint8Array.from({ length: W * H * 3 }, () => Math.floor(chance() * 256));
let engine: Engine;

beforeAll(async () => {
  engine = await nodeEngine({ size: 1, decode: (key) => decodeFile(file(key), engine.pool) });
  const photo = () => sharp(pixels, { raw: { width: W, height: H, channels: 3 } });
  await photo().png().toFile(file('plain.png'));
  // Stored with its rows as columns: 90° clockwise brings it upright.
  await photo().rotate(-90).withMetadata({ orientation: 6 }).tiff({ compression: 'lzw' }).toFile(file('turned.tif'));
  await sharp(
    Uint16Array.from(pixels, (v) => v * 256 + 7),
    { raw: { width: W, height: H, channels: 3 } },
  )
    .toColourspace('rgb16')
    .png()
    .toFile(file('deep.png'));
  await photo().jpeg().toFile(file('plain.jpg'));
});
afterAll(() => {
  engine.pool.close();
  rmSync(folder, { recursive: true });
});

/** A file as it comes to lie in shared memory. */
async function placed(name: string, wantsDeep = false) {
  const decoded = await decodeFile(file(name), engine.pool, wantsDeep);
  const bytes = decoded.width * decoded.height * (decoded.deep ? 8 : 4);
  const at = engine.pool.heap.take(bytes);
  try {
    await decoded.place(at);
    return { ...decoded, pixels: Buffer.from((engine.pool.machine as Machine).bytes.slice(at, at + bytes)) };
  } finally {
    engine.pool.heap.give(at);
  }
}

/** The photo above with an alpha channel. */
const opaque = <T>(value: (v: number) => T, most: T) =>
  Array.from({ length: W * H }, (_, i) => [...pixels.subarray(i * 3, i * 3 + 3)].map(value).concat(most)).flat();

it.each(['plain.png', 'turned.tif', 'deep.png'])('%s lies in memory as RGBA of 8 bits', async (name) => {
  const got = await placed(name);
  expect([got.width, got.height, got.deep]).toEqual([W, H, false]);
  expect(Buffer.compare(got.pixels, Buffer.from(opaque((v) => v, 255)))).toBe(0);
});

it('keeps 16 bits where they are wanted', async () => {
  const got = await placed('deep.png', true);
  expect(got.deep).toBe(true);
  const wanted = Uint16Array.from(opaque((v) => v * 256 + 7, 65535));
  expect(Buffer.compare(got.pixels, Buffer.from(wanted.buffer))).toBe(0);
  expect((await placed('plain.png', true)).deep).toBe(false);
});

it('refuses a file that breaks off while it is decoded with one sentence, and goes on', async () => {
  // Its middle is missing, its end is there.
  const bytes = readFileSync(file('plain.jpg'));
  writeFileSync(file('broken.jpg'), Buffer.concat([bytes.subarray(0, bytes.length / 2), bytes.subarray(-200)]));
  const error = await placed('broken.jpg').catch((e: unknown) => e);
  expect(error).toBeInstanceOf(Refused);
  expect((error as Refused).message).toMatch(/^“broken\.jpg” cannot be decoded: [^\n]+\.$/);
  expect((await placed('plain.jpg')).width).toBe(W);
});
