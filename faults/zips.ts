import { strFromU8, strToU8, zipSync } from 'fflate';
import { readLook, writeLook } from '../src/core/files/lookFile';
import { readStack, stackXml, type StackEntry } from '../src/core/files/openRaster';
import { listZip, readEntry, type ZipSource } from '../src/core/files/zipDirectory';
import { recipeSchema } from '../src/core/piece/schema';
import { campaign } from './campaign';
import type { Tally } from './tally';

const picture = Uint8Array.from({ length: 4000 }, (_, i) => (i * 37) & 255);
const recipe = recipeSchema.parse({
  dermatex: 1,
  name: 'Old card',
  coats: [{ source: { kind: 'picture', file: 'cloud.png', width: 4, height: 3 } }],
});
const layers = ['The photo', 'Paper & cracks'].map((name, i) => ({
  name,
  src: `data/layer${i}.png`,
  x: i,
  y: 0,
  opacity: 0.5,
  visible: true,
  mode: 'multiply' as const,
}));

/** A zip as it is read in parts; reading outside it is an error of ours. */
const sourceOf = (bytes: Buffer): ZipSource => ({
  size: bytes.length,
  async read(at, count) {
    if (!(at >= 0 && count >= 0 && at + count <= bytes.length)) throw new Error(`reads ${count} bytes at ${at} of ${bytes.length}`);
    return new Uint8Array(bytes.subarray(at, at + count));
  },
});

/** Looks, files of layers and backups: zips that are read by their parts, and the list of layers within. */
export async function damagedZips(count: number, random: () => number): Promise<Tally[]> {
  const look = Buffer.from(writeLook({ recipe, pictures: new Map([['cloud.png', picture]]) }));
  const parts = Buffer.from(
    zipSync({
      mimetype: [strToU8('image/openraster'), { level: 0 }],
      'stack.xml': strToU8(stackXml({ width: 8, height: 8 }, layers)),
      'data/layer0.png': picture,
    }),
  );
  const xml = Buffer.from(stackXml({ width: 640, height: 480 }, layers));
  return [
    await campaign('damaged looks', [look], count, random, (bytes) => {
      for (const content of readLook(bytes, 'odd.zip').pictures.values())
        if (!Buffer.from(content).equals(Buffer.from(picture))) throw new Error('a picture differs from what was packed');
    }),
    await campaign('damaged layers and backups', [parts], count, random, async (bytes) => {
      const source = sourceOf(bytes);
      for (const entry of await listZip(source, 'odd.ora')) {
        const content = await readEntry(source, entry, 'odd.ora');
        if (entry.name === 'stack.xml') readStack(strFromU8(content), 'odd.ora');
      }
    }),
    await campaign('damaged lists of layers', [xml], count, random, (bytes) => {
      const visit = (entries: readonly StackEntry[]): void => {
        for (const entry of entries) {
          if (!(entry.opacity >= 0 && entry.opacity <= 1)) throw new Error(`a layer with opacity ${entry.opacity}`);
          if ('layers' in entry) visit(entry.layers);
          else if (!Number.isFinite(entry.x + entry.y)) throw new Error(`a layer at ${entry.x}, ${entry.y}`);
        }
      };
      visit(readStack(bytes.toString('utf8'), 'odd.ora').layers);
    }),
  ];
}
