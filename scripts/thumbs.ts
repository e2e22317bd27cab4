import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { materials } from '../src/core/materials';
import { nodeEngine, root } from '../src/engine/node';

const SIDE = 256;

/** A small picture of every material as it is first laid, for the shelf: the same pixels as the page would make, made once at build time. */
const out = path.join(root, 'public/thumbs');
await mkdir(out, { recursive: true });
const engine = await nodeEngine({ decode: () => Promise.reject(new Error('There are no pictures here.')) });
// A few at a time: each wants a good deal of working memory.
const waiting = [...materials];
const draw = async () => {
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    const { pixels, width, height } = await engine.materialPixels({ id: next.id, seed: 1, params: {}, width: SIDE, height: SIDE });
    await sharp(pixels, { raw: { width, height, channels: 4 } })
      .jpeg({ quality: 86 })
      .toFile(path.join(out, `${next.id}.jpg`));
  }
};
await Promise.all(Array.from({ length: 4 }, draw));
engine.pool.close();
