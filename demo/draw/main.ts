// Draws the made-up photographs of the Skerry Light archive that are not rendered elsewhere: a harbour wall of brick with a noticeboard,
// in perspective, and a sky of clouds. Run by `node scripts/demo-photos.mjs`; the results are kept in demo/photos.
import path from 'node:path';
import sharp from 'sharp';
import { nodeEngine, root } from '../../src/engine/node';
import { drawSky } from './sky';
import { drawWall } from './wall';

const engine = await nodeEngine({ decode: () => Promise.reject(new Error('no pictures here')) });
const material = async (id: string, seed: number, width: number, height = width, params: Record<string, unknown> = {}) =>
  engine.materialPixels({ id, seed, params, width, height });

const save = (name: string, { pixels, width, height }: { pixels: Uint8Array; width: number; height: number }) =>
  sharp(pixels, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 90, chromaSubsampling: '4:4:4' })
    .toFile(path.join(root, 'demo/photos', name));

const wanted = process.env.ONLY;
if (wanted !== 'wall') await save('sky.jpg', drawSky(1500, 1000));
if (wanted !== 'sky') await save('harbour-wall.jpg', await drawWall(material, 1600, 1067));
engine.pool.close();
process.exit(0);
