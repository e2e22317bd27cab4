import { strToU8, zipSync } from 'fflate';
import { BadFile } from './inspect';
import { listZip, readEntry, type ZipSource } from './zipDirectory';

const text = strToU8('The lamp is lit at dusk. '.repeat(200));
const picture = Uint8Array.from({ length: 5000 }, (_, i) => (i * 37) & 255);
const zip = zipSync({ 'log.txt': [text, { level: 6 }], 'pictures/öl.png': [picture, { level: 0 }] });
const sourceOf = (bytes: Uint8Array): ZipSource => ({ size: bytes.length, read: async (at, count) => bytes.slice(at, at + count) });

it('files are listed and read one by one, stored or packed, as fflate packs them', async () => {
  const source = sourceOf(zip);
  const entries = await listZip(source, '“a.zip”');
  expect(entries.map(({ name, size, method }) => [name, size, method])).toEqual([
    ['log.txt', text.length, 8],
    ['pictures/öl.png', 5000, 0],
  ]);
  expect(await readEntry(source, entries[0], '“a.zip”')).toEqual(text);
  expect(await readEntry(source, entries[1], '“a.zip”')).toEqual(picture);
});

it('only what is asked for is read', async () => {
  let most = 0;
  const source = sourceOf(zip);
  const watched: ZipSource = { ...source, read: (at, bytes) => ((most = Math.max(most, bytes)), source.read(at, bytes)) };
  const large = Buffer.concat([new Uint8Array(0), zip]);
  await listZip({ ...watched, size: large.length }, 'a');
  expect(most).toBeLessThanOrEqual(22 + 65_535);
});

it('a file that is no zip, is cut short, or was changed, ends in one sentence', async () => {
  await expect(listZip(sourceOf(strToU8('Dear keeper')), '“a.zip”')).rejects.toThrow(BadFile);
  await expect(listZip(sourceOf(zip.subarray(0, zip.length - 30)), '“a.zip”')).rejects.toThrow('“a.zip” is not a zip file, or is damaged');
  const [, stored] = await listZip(sourceOf(zip), 'a');
  const changed = zip.slice();
  changed[stored.at + 100] ^= 1;
  await expect(readEntry(sourceOf(changed), stored, '“a.zip”')).rejects.toThrow('“a.zip” is damaged: pictures/öl.png is not what was packed');
});

it('whatever byte is damaged, it is a sentence or the same files: nothing hangs and nothing is read outside', async () => {
  let seed = 11;
  const chance = (n: number) => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) % n;
  for (let i = 0; i < 400; i++) {
    const damaged = zip.slice();
    for (let k = 0; k < 3; k++) damaged[chance(2) ? damaged.length - 1 - chance(160) : chance(damaged.length)] = chance(256);
    const source: ZipSource = {
      size: damaged.length,
      read: async (at, count) => {
        expect(at >= 0 && at + count <= damaged.length).toBe(true);
        return damaged.slice(at, at + count);
      },
    };
    try {
      for (const entry of await listZip(source, 'a')) await readEntry(source, entry, 'a');
    } catch (error) {
      expect(error).toBeInstanceOf(BadFile);
    }
  }
});
