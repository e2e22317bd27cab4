import { coatSchema } from '../core/piece/schema';
import { numbers } from '@/testing/machine';
import { blocksOfRegion } from './blocks';
import type { Drawing } from './drawing';
import type { Engine } from './engine';
import { nodeEngine } from './node';
import { Cancelled } from './stopping';

jest.setTimeout(120_000);

const [W, H] = [2880, 1920];
const random = numbers(3);
const noise = Uint8Array.from({ length: 4096 }, () => 110 + 30 * random());
let engine: Engine;
beforeAll(async () => {
  const photo = Uint8Array.from({ length: W * H * 4 }, (_, i) => (i % 4 === 3 ? 255 : noise[(i * 7) % 4096]));
  engine = await nodeEngine({ size: 2, decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photo) }) });
});
afterAll(() => engine.pool.close());

const coat = (source: object, more: object = {}) =>
  coatSchema.parse({ id: 'a', source: { kind: 'material', seed: 3, ...source }, blend: 'normal', ...more });
const drawingOf = (coats: object[], more: Partial<Drawing> = {}): Drawing => ({
  piece: { photo: { key: 'k', name: 'k.png', width: W, height: H }, strength: 1, coats: coats as never },
  region: { x: 0, y: 0, width: W, height: H },
  scale: 1,
  tile: 256,
  full: true,
  ...more,
});
const draw = (drawing: Drawing, signal?: AbortSignal) => engine.draw(drawing, (pixels) => Buffer.from(pixels), { signal });

/** Mean and greatest difference of a region's drawing from the same part of the whole. */
function compare(whole: Buffer, part: Buffer, { x, y, width, height }: Drawing['region']) {
  let [sum, most] = [0, 0];
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width * 4; i++) {
      const off = Math.abs(part[j * width * 4 + i] - whole[((y + j) * W + x) * 4 + i]);
      sum += off;
      most = Math.max(most, off);
    }
  return { mean: sum / part.length, most };
}

/** How strong the finest detail is: rms of the difference from the mean of the four neighbours. */
function finest(picture: Buffer, width: number, height: number): number {
  let sum = 0;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = (y * width + x) * 4 + 1;
      sum += (picture[at] - (picture[at - 4] + picture[at + 4] + picture[at - width * 4] + picture[at + width * 4]) / 4) ** 2;
    }
  return Math.sqrt(sum / (width * height));
}

it('cuts a large picture into blocks that cover it once', () => {
  const region = { x: 10, y: 20, width: 5000, height: 3300 };
  const blocks = blocksOfRegion(region);
  expect(blocks.length).toBeGreaterThan(6);
  expect(blocks.reduce((sum, { width, height }) => sum + width * height, 0)).toBe(5000 * 3300);
  for (const { x, y, width, height } of blocks) {
    expect(x >= 10 && y >= 20 && x + width <= 5010 && y + height <= 3320).toBe(true);
    expect(width <= 1510 && height <= 754).toBe(true);
  }
  expect(blocksOfRegion({ x: 0, y: 0, width: 1200, height: 800 })).toHaveLength(1);
});

/** A wall that comes nearer to the right. */
const leaning = [
  [-0.1, 0.25],
  [1.15, -0.2],
  [1.15, 1.2],
  [-0.1, 0.75],
];
const cases: [string, object, object][] = [
  ['covering', { id: 'paper.laid' }, {}],
  ['turned and larger', { id: 'wear.film' }, { lay: { turn: 23, scale: 1.3, x: 0.1 } }],
  ['inside the photo', { id: 'paper.hot-press' }, { lay: { fit: 'contain', turn: 5 } }],
  ['in the photo’s shape', { id: 'edges.frame' }, {}],
  ['in perspective', { id: 'cloth.linen' }, { lay: { corners: leaning } }],
  ['repeated, of a large sheet', { id: 'paper.kraft' }, { lay: { fit: 'tile', scale: 3.2, x: 0.3, turn: 8 } }],
  ['displaced', { id: 'paper.laid' }, { treatments: [{ kind: 'relief', depth: 0.06 }] }],
];

it.each(cases)('a part of a piece with a material %s is the same part of the whole', async (_, source, more) => {
  const coats = [coat(source, more)];
  const whole = await draw(drawingOf(coats));
  for (const region of [
    { x: 0, y: 0, width: 300, height: 260 },
    { x: 1301, y: 777, width: 330, height: 410 },
    { x: W - 200, y: H - 240, width: 200, height: 240 },
  ]) {
    const { mean, most } = compare(whole, await draw(drawingOf(coats, { region })), region);
    expect(mean).toBeLessThan(0.02);
    expect(most).toBeLessThanOrEqual(2);
  }
});

it('a floor that recedes joins where its blocks do, though far ones are drawn of a smaller sheet', async () => {
  const corners = [
    [0.3, 0.35],
    [0.7, 0.35],
    [1.25, 1.05],
    [-0.25, 1.05],
  ];
  const coats = [coat({ id: 'cloth.linen' }, { lay: { corners } })];
  const whole = await draw(drawingOf(coats));
  // Where blocks of the whole meet: these views are drawn in one.
  for (const region of [
    { x: 1300, y: 560, width: 300, height: 200 },
    { x: 1340, y: 1180, width: 240, height: 200 },
  ]) {
    const { mean, most } = compare(whole, await draw(drawingOf(coats, { region })), region);
    // As far as a preview may differ from the reduced picture, clear values among them.
    expect(mean).toBeLessThan(1.5 * (3 / 4));
    expect(most).toBeLessThan(50);
  }
});

it.each([
  ['covering', {}, 8],
  ['in perspective', { lay: { corners: leaning } }, 8],
  ['repeated', { lay: { fit: 'tile', scale: 2.7 } }, 8],
  // The coarse sheet is enlarged more here, so that more pixels are averaged.
  ['repeated, of a large sheet', { lay: { fit: 'tile', scale: 3.2 } }, 10],
])('a material %s is finer than without full detail, and the same where both are reduced', async (_, more, side) => {
  const coats = [coat({ id: 'cloth.linen' }, more)];
  const region = { x: 1000, y: 700, width: 640, height: 480 };
  const [fine, coarse] = [await draw(drawingOf(coats, { region })), await draw(drawingOf(coats, { region, full: false }))];
  expect(finest(fine, 640, 480)).toBeGreaterThan(1.4 * finest(coarse, 640, 480));
  let off = 0;
  for (let y = 0; y < 480; y += side)
    for (let x = 0; x < 640; x += side) {
      let sum = 0;
      for (let j = 0; j < side; j++) for (let i = 0; i < side; i++) sum += fine[((y + j) * 640 + x + i) * 4] - coarse[((y + j) * 640 + x + i) * 4];
      off += Math.abs(sum / side ** 2);
    }
  expect(off / ((480 / side) * (640 / side))).toBeLessThan(1.5);
});

it('stops between windows, and gives all memory back', async () => {
  const coats = [coat({ id: 'masonry.brick' }), coat({ id: 'cloth.linen' })];
  const before = engine.pool.heap.used;
  const stop = new AbortController();
  const drawing = draw(drawingOf(coats), stop.signal);
  setTimeout(() => stop.abort(), 3000);
  await expect(drawing).rejects.toBeInstanceOf(Cancelled);
  // What stays is what windows take from smaller drawings, and the coarse materials.
  expect(engine.pool.heap.used - before).toBeLessThan(120 * 2 ** 20);
});
