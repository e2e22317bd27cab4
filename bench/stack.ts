import sharp from 'sharp';
import { coatSchema } from '../src/core/piece/schema';
import { nodeEngine } from '../src/engine/node';
import { line, timed } from './probe';

/** What exists of the standard stack: three coats, two of them masked; displacement, curve, vignette and grain come with later issues. */
export const stackCoats = [
  coatSchema.parse({
    id: 'a',
    source: { kind: 'material', id: 'paper.cold-press', seed: 1 },
    blend: 'multiply',
    strength: 0.8,
    lay: { turn: 7, scale: 1.2 },
    mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.4, rx: 0.25, ry: 0.3, feather: 0.7, density: 0.8, turn: 10 }] },
  }),
  coatSchema.parse({
    id: 'b',
    source: { kind: 'material', id: 'cloth.linen', seed: 2 },
    blend: 'overlay',
    strength: 0.5,
    treatments: [{ kind: 'tone', contrast: 0.2, saturation: -0.5 }],
  }),
  coatSchema.parse({
    id: 'c',
    source: { kind: 'material', id: 'wear.film', seed: 3 },
    blend: 'soft-light',
    strength: 0.6,
    mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.5, rx: 0.4, ry: 0.4, feather: 1, density: 1, turn: 0 }] },
  }),
];

export function scene(width: number, height: number): Uint8Array {
  const out = new Uint8Array(width * height * 4);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p += 4) {
      out[p] = (x * 200) / width + ((x ^ y) & 31);
      out[p + 1] = (y * 200) / height + ((x * 3) & 31);
      out[p + 2] = 90 + ((y * 5) & 63);
      out[p + 3] = 255;
    }
  }
  return out;
}

async function engineFor(width: number, height: number, size: number, coats = stackCoats) {
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    size,
    levels: 1,
    decode: async () => ({ width, height, place: async (at) => engine.pool.write(at, scene(width, height)) }),
  });
  const piece = { coats, strength: 1, photo: { key: 'k', name: 'k', width, height } };
  const draw = () => engine.draw({ piece, region: { x: 0, y: 0, width, height }, scale: 1, tile: 256 }, (p) => p[0]);
  await draw();
  return { engine, draw };
}

/** libvips' nearest equivalent through sharp: the same materials resized to cover, composed with the same modes, masked, toned. */
async function vips(width: number, height: number, photo: Buffer, textures: Buffer[], side: number): Promise<void> {
  const raw = { raw: { width: side, height: side, channels: 4 as const } };
  const cover = (b: Buffer) => sharp(b, raw).resize(width, height, { fit: 'cover', kernel: 'linear' });
  const mask = (rx: number, ry: number) =>
    Buffer.from(
      `<svg width="${width}" height="${height}"><defs><radialGradient id="g"><stop offset="0" stop-opacity="0.2"/><stop offset="1" stop-opacity="1"/></radialGradient></defs><rect width="100%" height="100%" fill="url(#g)"/><ellipse rx="${rx}" ry="${ry}"/></svg>`,
    );
  const a = await cover(textures[0])
    .rotate(0)
    .composite([{ input: mask(width / 4, height / 3), blend: 'dest-in' }])
    .raw()
    .toBuffer();
  const b = await cover(textures[1]).modulate({ saturation: 0.5 }).linear(1.2, -25).ensureAlpha(0.5).raw().toBuffer();
  const c = await cover(textures[2])
    .composite([{ input: mask(width / 3, height / 3), blend: 'dest-in' }])
    .raw()
    .toBuffer();
  const layer = (input: Buffer) => ({ input, raw: { width, height, channels: 4 as const } });
  await sharp(photo, { raw: { width, height, channels: 4 } })
    .composite([
      { ...layer(a), blend: 'multiply' },
      { ...layer(b), blend: 'overlay' },
      { ...layer(c), blend: 'soft-light' },
    ])
    .raw()
    .toBuffer();
}

export async function standardStack(): Promise<void> {
  const [width, height] = [6000, 4000];
  const { engine, draw } = await engineFor(width, height, 1);
  const ours = await timed(draw);
  const side = 2048;
  const textures = await Promise.all(
    ['paper.cold-press', 'cloth.linen', 'wear.film'].map(async (id, i) =>
      Buffer.from((await engine.materialPixels({ id, seed: i + 1, params: {}, width: side, height: side })).pixels),
    ),
  );
  engine.pool.close();
  sharp.concurrency(1);
  const photo = Buffer.from(scene(width, height));
  const theirs = await timed(() => vips(width, height, photo, textures, side), 2);
  line('stack at 24 MP, one worker', `${ours.best.toFixed(0)} ms`, ours.probe);
  line('nearest equivalent in libvips, one thread', `${theirs.best.toFixed(0)} ms`, theirs.probe);
  line('ratio (goal 5 ×)', `${(theirs.best / ours.best).toFixed(2)} ×`, theirs.probe);
}

/** Five coats drawn anew at the size of a drag, nothing kept: two workers, as in a page here. */
export async function fiveCoats(): Promise<void> {
  const [width, height] = [775, 516];
  const { engine, draw } = await engineFor(width, height, 2, [
    ...stackCoats,
    ...stackCoats.slice(0, 2).map((c) => ({ ...c, id: `${c.id}2`, blend: 'screen' as const, strength: 0.2 })),
  ]);
  const t = await timed(draw, 9);
  engine.pool.close();
  line('five coats at 0.4 MP, two workers, median (goal 120)', `${t.median.toFixed(0)} ms`, t.probe);
}

export async function perMegapixel(): Promise<void> {
  const cost: number[] = [];
  for (const [w, h] of [
    [1500, 1000],
    [12000, 8340],
  ]) {
    const { engine, draw } = await engineFor(w, h, 1);
    const t = await timed(draw);
    engine.pool.close();
    cost.push(t.best / ((w * h) / 1e6));
    line(`${((w * h) / 1e6).toFixed(1)} MP, one worker, a megapixel`, `${cost[cost.length - 1].toFixed(1)} ms`, t.probe);
  }
  line('ratio (goal at most 1.2 ×)', `${(cost[1] / cost[0]).toFixed(2)} ×`, 0);
}
