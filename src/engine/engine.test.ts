import { readFileSync } from 'node:fs';
import path from 'node:path';
import { coatSchema, type Piece } from '../core/piece/schema';
import { readySchema } from '../core/ready/schema';
import { numbers } from '@/testing/machine';
import { Pool } from './pool';
import { Cancelled } from './stopping';
import type { Engine } from './engine';
import { materialKey } from './library';
import { materialSide, materialSize } from './materialSize';
import { nodeEngine } from './node';

jest.setTimeout(60_000);

const W = 640;
const H = 480;
const random = numbers(5);
const bytes = Uint8Array.from({ length: W * H * 4 }, (_, i) => (i % 4 === 3 ? 255 : Math.floor(128 + 90 * Math.sin(i / 997) + 30 * random())));
const engines: Engine[] = [];

async function make(shared: boolean, patience?: number): Promise<Engine> {
  const engine: Engine = await nodeEngine({
    shared,
    size: 2,
    patience,
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, bytes) }),
  });
  engines.push(engine);
  return engine;
}
afterAll(() => engines.forEach((e) => e.pool.close()));

const coat = (id: string, more: object) => coatSchema.parse({ id, source: { kind: 'material', id: 'paper.cold-press', seed: 3 }, ...more });
const piece: Pick<Piece, 'coats' | 'strength' | 'photo'> = {
  photo: { key: 'k', name: 'k.png', width: W, height: H },
  strength: 1,
  coats: [coat('a', { blend: 'multiply' }), coat('b', { blend: 'overlay', strength: 0.5, source: { kind: 'material', id: 'wear.film', seed: 2 } })],
};
const region = { x: 0, y: 0, width: W, height: H };
const copy = (pixels: Uint8Array) => Buffer.from(pixels);

it('draws the same bytes on shared memory, on private memories, and with what it has kept', async () => {
  const shared = await make(true);
  const alone = await make(false);
  const one = await shared.draw({ piece, region, scale: 1 }, copy);
  expect(Buffer.compare(one, await alone.draw({ piece, region, scale: 1 }, copy))).toBe(0);
  const kept = await shared.draw({ piece, region, scale: 1, chosen: 'b' }, copy);
  const again = await shared.draw({ piece, region, scale: 1, chosen: 'b' }, copy);
  expect(Buffer.compare(one, kept)).toBe(0);
  let most = 0;
  again.forEach((v, i) => (most = Math.max(most, Math.abs(v - one[i]))));
  expect(most).toBeLessThanOrEqual(1);
});

it('reports progress and stops between tiles', async () => {
  const engine = await make(true);
  const big = { x: 0, y: 0, width: W * 6, height: H * 6 };
  const stop = new AbortController();
  const seen: number[] = [];
  const drawing = engine.draw({ piece, region: big, scale: 6, tile: 64 }, copy, {
    signal: stop.signal,
    onProgress: (done, total) => {
      seen.push(done / total);
      stop.abort();
    },
  });
  await expect(drawing).rejects.toBeInstanceOf(Cancelled);
  expect(seen[0]).toBeLessThan(1);
  // What follows is not disturbed.
  await expect(engine.draw({ piece, region, scale: 1 }, (p) => p.length)).resolves.toBe(W * H * 4);
});

it('draws again what a dead worker had taken, and replaces it', async () => {
  const engine = await make(true, 300);
  const want = await engine.draw({ piece, region, scale: 1 }, copy);
  engine.pool.kill(0);
  const got = await engine.draw({ piece, region, scale: 1, tile: 64 }, copy);
  expect(Buffer.compare(want, got)).toBe(0);
  const big = { x: 0, y: 0, width: W * 4, height: H * 4 };
  const drawing = engine.draw({ piece, region: big, scale: 4, tile: 64 }, (p) => p.length);
  setTimeout(() => engine.pool.kill(1), 60);
  await expect(drawing).resolves.toBe(W * H * 16 * 4);
  expect(engine.pool.size).toBe(2);
});

it.each([true, false])('draws when all workers die at once, before it begins and on the way (shared memory: %s)', async (shared) => {
  // On a busy machine a worker with a memory of its own takes longer to answer.
  const engine = await make(shared, shared ? 300 : 1500);
  const want = await engine.draw({ piece, region, scale: 1 }, copy);
  const killAll = () => Array.from({ length: engine.pool.size }, (_, i) => engine.pool.kill(i));
  killAll();
  expect(Buffer.compare(want, await engine.draw({ piece, region, scale: 1, tile: 64 }, copy))).toBe(0);
  const drawing = engine.draw({ piece, region: { x: 0, y: 0, width: W * 4, height: H * 4 }, scale: 4, tile: 64 }, (p) => p.length);
  setTimeout(killAll, 60);
  await expect(drawing).resolves.toBe(W * H * 16 * 4);
});

it('on private memories, loads again what a dead worker’s memory held', async () => {
  const engine = await make(false, 300);
  const want = await engine.draw({ piece, region, scale: 1 }, copy);
  engine.pool.kill(1);
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(Buffer.compare(want, await engine.draw({ piece, region, scale: 1, tile: 64 }, copy))).toBe(0);
});

it('fails with the worker’s own sentence and goes on', async () => {
  const engine = await make(true);
  const wrong = { ...piece, coats: [coat('x', { source: { kind: 'material', id: 'paper.gold', seed: 1 } })] };
  await expect(engine.draw({ piece: wrong, region, scale: 1 }, copy)).rejects.toThrow('There is no material called "paper.gold"');
  await expect(engine.draw({ piece, region, scale: 1 }, (p) => p.length)).resolves.toBe(W * H * 4);
});

it('draws steps and masks that reach far at the size of an export, near what they are on a small drawing', async () => {
  const engine = await make(true);
  const steps = [
    [{ kind: 'blur', radius: 60 }],
    [{ kind: 'split', radius: 80, detail: 0.4 }],
    [{ kind: 'sharpen', radius: 20, amount: 1 }],
    [{ kind: 'posterise', soften: 20 }],
    [
      { kind: 'drape', map: 'below', amountX: 80, amountY: 40, blur: 40 },
      { kind: 'relief', soften: 20, strength: 0.3 },
    ],
  ];
  const wide = { start: 'none', parts: [{ kind: 'tones', of: 'below', op: 'add', feather: 120 }], feather: 120, expand: 20 };
  const coats = steps.map((treatments, i) =>
    coat(`s${i}`, { source: { kind: 'below' }, treatments, strength: 0.6, mask: i === 1 ? wide : undefined }),
  );
  const far = { ...piece, coats };
  // 3.8 pixels to a u, as in a picture of 44 megapixels; a quarter of its middle is drawn.
  const scale = 12;
  const part = { x: W * 4.5, y: H * 4.5, width: W * 3, height: H * 3 };
  const mean = (pixels: Uint8Array, width: number, box: [number, number, number]) => {
    let sum = 0;
    for (let y = box[1]; y < box[1] + box[2]; y++) for (let x = box[0]; x < box[0] + box[2]; x++) sum += pixels[(y * width + x) * 4 + 1];
    return sum / box[2] ** 2;
  };
  const large = await engine.draw({ piece: far, region: part, scale, tile: engine.largeTile }, copy);
  const small = await engine.draw({ piece: far, region: { x: W * 0.375, y: H * 0.375, width: W / 4, height: H / 4 }, scale: 1 }, copy);
  for (const [x, y] of [
    [10, 10],
    [80, 40],
    [130, 90],
  ])
    expect(Math.abs(mean(large, part.width, [x * 12, y * 12, 192]) - mean(small, W / 4, [x, y, 16]))).toBeLessThan(6);
});

it('tries smaller tiles where steps reach further than a worker’s memory, and says so when none is small enough', async () => {
  const engine = await make(true);
  const drapes = (amount: number, n: number) =>
    Array.from({ length: n }, (_, i) =>
      coat(`d${i}`, { source: { kind: 'below' }, treatments: [{ kind: 'drape', map: 'own', amountX: amount, amountY: amount, blur: 3 }] }),
    );
  const part = { x: 3000, y: 2000, width: 150, height: 150 };
  const draw = (amount: number, n: number) =>
    engine.draw({ piece: { ...piece, coats: drapes(amount, n) }, region: part, scale: 12, tile: engine.largeTile }, (p) => p.length);
  await expect(draw(80, 2)).resolves.toBe(150 * 150 * 4);
  await expect(draw(400, 4)).rejects.toThrow('A step reaches too far for a picture of this size; ease its amount or make the picture smaller.');
  await expect(draw(10, 1)).resolves.toBe(150 * 150 * 4);
});

it('gives up with a sentence when workers cannot be started', async () => {
  const pool = new Pool({
    module: new WebAssembly.Module(readFileSync(path.join(process.env.DERMATEX_ROOT ?? process.cwd(), 'public/kernels-shared.wasm'))),
    shared: true,
    size: 1,
    spawn: () => ({ post: () => undefined, terminate: () => undefined, listen: (_message, death) => void setTimeout(() => death('stillborn'), 1) }),
  });
  await expect(pool.ready()).rejects.toThrow('The workers that draw cannot be started (stillborn); your work is kept, reload the page to go on.');
  pool.close();
});

it('gives back the memory of a material’s making', async () => {
  const engine = await make(true);
  const order = { id: 'paper.cold-press', seed: 9, params: {}, width: 256, height: 256 };
  const before = engine.pool.heap.used;
  await engine.library.material(order);
  expect(engine.pool.heap.used - before).toBeLessThan(256 * 256 * 4 * 1.5);
  engine.library.drop(materialKey(order));
  expect(engine.pool.heap.used).toBe(before);
});

it('chooses the side of a material by how large it will be seen, in the photo’s shape when edges matter', () => {
  expect([100, 400, 640, 1100, 9000].map((p) => materialSide(p))).toEqual([256, 512, 1024, 2048, 2048]);
  expect([400, 640].map((p) => materialSide(p, true))).toEqual([512, 2048]);
  expect(materialSize('paper.cold-press', 1024, 1.5)).toEqual({ width: 1024, height: 1024 });
  expect(materialSize('paper.aged', 1024, 1.5)).toEqual({ width: 1024, height: 688 });
  expect(materialSize('paper.aged', 1024, 0.5)).toEqual({ width: 512, height: 1024 });
});

describe('readying', () => {
  const ready = (exposure: number) =>
    readySchema.parse({
      lens: { k1: -0.08, red: 1, corners: 0.4 },
      crop: { x: 0.05, y: 0.05, w: 0.85, h: 0.85, turn: 2 },
      fringe: { amount: 0.6 },
      tone: { exposure },
      even: { amount: 0.5 },
      localContrast: { amount: 0.4 },
      noise: { luma: 0.4, colour: 0.6 },
      spots: [{ points: [[0.4, 0.5]], size: 60 }],
    });
  const size = { x: 0, y: 0, width: 544, height: 408 };
  const order = (exposure: number, chosen?: string) => ({ piece: { ...piece, coats: [], ready: ready(exposure) }, region: size, scale: 1, chosen });

  it('is the same on shared memory, on private memories, and when it is kept half way', async () => {
    const shared = await make(true);
    const alone = await make(false);
    const one = await shared.draw(order(0.5), copy);
    expect(Buffer.compare(one, await alone.draw(order(0.5), copy))).toBe(0);
    // Another exposure and back: what comes before it is kept, in 16 bit.
    await shared.draw(order(0.6), copy);
    await shared.draw(order(0.7), copy);
    const again = await shared.draw(order(0.5), copy);
    let most = 0;
    again.forEach((v, i) => (most = Math.max(most, Math.abs(v - one[i]))));
    expect(most).toBeLessThanOrEqual(1);
    const other = await shared.draw(order(0.9), copy);
    expect(Buffer.compare(one, other)).not.toBe(0);
  });

  it('surveys what a coat with local contrast lies on, and takes it anew when that changes', async () => {
    const engine = await make(true);
    const coats = (strength: number) => [
      coat('a', { blend: 'multiply', strength }),
      coat('b', { blend: 'normal', strength: 1, source: { kind: 'below' }, treatments: [{ kind: 'local-contrast', amount: 0.8 }] }),
    ];
    const draw = (list: Piece['coats']) => engine.draw({ piece: { ...piece, coats: list }, region, scale: 1 }, copy);
    const strong = await draw(coats(1));
    const weak = await draw(coats(0.2));
    expect(Buffer.compare(await (await make(true)).draw({ piece: { ...piece, coats: coats(0.2) }, region, scale: 1 }, copy), weak)).toBe(0);
    expect(Buffer.compare(strong, weak)).not.toBe(0);
    expect(Buffer.compare(weak, await draw(coats(0.2).slice(0, 1)))).not.toBe(0);
  });

  it('finds a source for a spot that lies beside it, and colour fringes where there are edges', async () => {
    const engine = await make(true);
    const [dx, dy] = await engine.spotSource(piece, { points: [[0.5, 0.5]], size: 60 });
    expect(Math.hypot(dx * W, dy * H)).toBeGreaterThan(19);
    expect(Math.abs(dx)).toBeLessThan(0.5);
    const fringes = await engine.fringes(piece);
    expect(fringes === null || fringes.edges > 50).toBe(true);
  });
});

it('draws every one of many long strokes, although the dabs of so many are not all kept in memory', async () => {
  const [W, H] = [320, 240];
  const grey = new Uint8Array(W * H * 4).fill(128);
  const engine: Engine = await nodeEngine({
    size: 2,
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, grey) }),
  });
  // Each covers a row of its own.
  const rows = 130;
  const strokes = Array.from({ length: rows }, (_, i) => ({
    does: 'put',
    size: 6,
    hardness: 1,
    strength: 1,
    flow: 1,
    points: Array.from({ length: 130 }, (_, k) => [k / 129, (i + 0.5) / rows, 1]),
  }));
  const mask = { start: 'none', parts: [{ kind: 'strokes', strokes }] };
  const coats = [coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#ffffff' }, mask, guards: 0 })];
  const of = { coats, strength: 1, photo: { key: 'k', name: 'k', width: W, height: H } };
  const pixels = await engine.draw({ piece: of, region: { x: 0, y: 0, width: W, height: H }, scale: 1 }, (p) => p.slice());
  for (let i = 0; i < rows; i++) {
    const y = Math.floor(((i + 0.5) / rows) * H);
    expect({ row: i, drawn: pixels[(y * W + 160) * 4] > 180 }).toEqual({ row: i, drawn: true });
  }
  engine.pool.close();
});
