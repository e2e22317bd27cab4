import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { deepValues } from '@/testing/deepValues';
import { runHere } from './testing';

jest.setTimeout(60_000);

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bits-'));
const file = (name: string) => path.join(folder, name);
const W = 1024;
const H = 64;
/** A ramp of 1024 steps, each 64 of 65536 levels. */
const ramp = Uint16Array.from({ length: W * H * 3 }, (_, i) => (Math.floor(i / 3) % W) * 64 + 5);
const recipe = (name: string, more: object) => {
  writeFileSync(file(name), JSON.stringify({ dermatex: 1, name, coats: [], ...more }));
  return file(name);
};
const render = async (photo: string, look: string, out: string, ...more: string[]) => {
  const { status, err } = await runHere(['render', '--photo', file(photo), '--recipe', look, '--out', file(out), ...more]);
  expect([status, err]).toEqual([0, '']);
};
const values = (name: string) => deepValues(file(name));
/** The largest difference: a comparison of whole arrays would print all of them. */
const off = (got: Uint16Array, wanted: (i: number) => number) => got.reduce((most, v, i) => Math.max(most, Math.abs(v - wanted(i))), 0);
const steps = (all: Uint16Array) => new Set(all.filter((_, i) => i % 3 === 0)).size;

beforeAll(async () => {
  const deep = () => sharp(ramp, { raw: { width: W, height: H, channels: 3 } }).toColourspace('rgb16');
  await deep().png().toFile(file('ramp.png'));
  await deep().tiff({ compression: 'lzw' }).toFile(file('ramp.tif'));
  await sharp({ create: { width: W, height: H, channels: 3, background: '#336699' } })
    .png()
    .toFile(file('eight.png'));
});

it.each([
  ['ramp.png', 'same.png'],
  ['ramp.png', 'same.tif'],
  ['ramp.tif', 'same2.png'],
])('a ramp of 1024 steps keeps them all, to the level, from %s to %s', async (from, to) => {
  await render(from, recipe('nothing.json', {}), to, '--bits', '16');
  expect(await sharp(file(to)).metadata()).toMatchObject({ width: W, height: H, channels: 3, depth: 'ushort' });
  expect(off(await values(to), (i) => ramp[i])).toBe(0);
});

it('without --bits 16 there are 256 of them', async () => {
  await render('ramp.png', recipe('nothing.json', {}), 'eight-bits.png');
  expect(await sharp(file('eight-bits.png')).metadata()).toMatchObject({ depth: 'uchar' });
  expect(steps(await values('eight-bits.png'))).toBe(256);
});

it('a coat keeps the steps: multiplied by a grey, each value is what the formula says within two of 65536', async () => {
  await render(
    'ramp.png',
    recipe('grey.json', { coats: [{ source: { kind: 'colour', colour: '#808080' }, blend: 'multiply' }] }),
    'grey.png',
    '--bits',
    '16',
  );
  const got = await values('grey.png');
  expect(off(got, (i) => (ramp[i] * 128) / 255)).toBeLessThanOrEqual(2);
  expect(steps(got)).toBe(W);
});

it('a crop that is turned is between its neighbours, finer than 8 bits', async () => {
  await render('ramp.png', recipe('turned.json', { ready: { crop: { x: 0.1, y: 0.2, w: 0.8, h: 0.6, turn: 1 } } }), 'turned.png', '--bits', '16');
  expect(steps(await values('turned.png'))).toBeGreaterThan(2000);
});

it('half the size is the mean of two neighbours, to the level', async () => {
  await render('ramp.png', recipe('nothing.json', {}), 'half.png', '--bits', '16', '--scale', '0.5');
  const got = await values('half.png');
  const row = got.filter((_, i) => i % 3 === 0).slice(0, W / 2);
  expect(off(row, (x) => (2 * x + 0.5) * 64 + 5)).toBeLessThanOrEqual(1);
});

it('a photo of 8 bits is written with 16 as well', async () => {
  await render('eight.png', recipe('nothing.json', {}), 'deep.png', '--bits', '16');
  expect([...(await values('deep.png')).slice(0, 3)]).toEqual([0x33, 0x66, 0x99].map((v) => v * 257));
});

it.each([
  [['--bits', '12', '--out', 'x.png'], '--bits is 8 or 16, not 12.'],
  [['--bits', '16', '--out', 'x.jpg'], 'Only .png and .tif hold 16 bits; name the result so, not x.jpg.'],
])('%j is refused in one sentence', async (args, says) => {
  const { status, err } = await runHere(['render', '--photo', file('ramp.png'), '--recipe', recipe('nothing.json', {}), ...args]);
  expect([status, err.trim()]).toEqual([2, says]);
});
