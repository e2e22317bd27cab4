import sharp from 'sharp';
import { materials, materialById } from '../src/core/materials';
import { coatSchema } from '../src/core/piece/schema';
import { nodeEngine } from '../src/engine/node';
import { edgeWidth } from '../src/testing/edges';
import { highestOctave } from '../src/testing/octave';
import { line, spin } from './probe';

const [WIDTH, HEIGHT] = [6000, 4000];
/** Side of the parts that are compared. */
const SIDE = 512;
/** Families that are surfaces all over; of the others, lines and specks are looked at. */
const SURFACES = ['paper', 'cloth', 'masonry', 'wood', 'skin', 'brush', 'living'];

/** A grey photo of 24 MP, and how a material drawn over it at full strength looks in a place. */
async function looks() {
  const grey = new Uint8Array(WIDTH * HEIGHT * 4).fill(128);
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    levels: 1,
    decode: async () => ({ width: WIDTH, height: HEIGHT, place: async (at) => engine.pool.write(at, grey) }),
  });
  const pieceOf = (id: string) => ({
    coats: [coatSchema.parse({ id: 'a', source: { kind: 'material', id, seed: 1 }, blend: 'normal', strength: 1 })],
    strength: 1,
    photo: { key: 'k', name: 'k', width: WIDTH, height: HEIGHT },
  });
  const at = (id: string, x: number, y: number, full: boolean) =>
    engine.draw({ piece: pieceOf(id), region: { x, y, width: SIDE, height: SIDE }, scale: 1, full }, (pixels) => Buffer.from(pixels));
  return { engine, at };
}

/** Keeps a part to be looked at: CROPS names the folder. */
const save = (id: string, pixels: Buffer) =>
  sharp(pixels, { raw: { width: SIDE, height: SIDE, channels: 4 } })
    .removeAlpha()
    .png()
    .toFile(`${process.env.CROPS}/${id}.png`);

/** Mean difference in levels between a preview and the export reduced to it, both seen at half the preview's pixels, for each material laid as it suggests. */
export async function reducedExports(): Promise<void> {
  const [width, height, reduction] = [3000, 2000, 8];
  const photo = new Uint8Array(WIDTH * HEIGHT * 4);
  for (let i = 0; i < photo.length; i++) photo[i] = i % 4 === 3 ? 255 : 60 + (130 * (Math.floor(i / 4) % WIDTH)) / WIDTH;
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    decode: async () => ({ width: WIDTH, height: HEIGHT, place: async (at) => engine.pool.write(at, photo) }),
  });
  const only = process.argv[3]?.split(',');
  let most = 0;
  for (const { id, suggest } of materials) {
    if (only && !only.includes(id)) continue;
    const coats = [coatSchema.parse({ id: 'a', source: { kind: 'material', id, seed: 1 }, ...suggest })];
    const piece = { coats, strength: 1, photo: { key: 'k', name: 'k', width: WIDTH, height: HEIGHT } };
    const draw = (scale: number) => {
      const [w, h] = [width * scale, height * scale];
      const region = { x: Math.round(1500 * scale), y: Math.round(1000 * scale), width: w, height: h };
      return engine.draw({ piece, region, scale, full: scale === 1, tile: 256 }, (pixels) => reduced(pixels, w, h, reduction * scale));
    };
    const [large, small] = [await draw(1), await draw(2 / reduction)];
    const of = (off: (v: number) => number) => large.reduce((sum, v, i) => sum + off(v - small[i]), 0) / large.length;
    const [mean, bias] = [of(Math.abs), of((v) => v)];
    most = Math.max(most, mean);
    line(id, `${mean.toFixed(2)}, bias ${bias.toFixed(2)}${mean > 1.5 ? ' over' : ''}`, spin());
  }
  engine.pool.close();
  line('most (goal 1.5)', most.toFixed(2), spin());
}

/** Means of squares of pixels: red, green and blue in turn. */
function reduced(pixels: Uint8Array, width: number, height: number, by: number): Float32Array {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Float32Array(w * h * 3);
  for (let y = 0; y < h * by; y++)
    for (let x = 0; x < w * by; x++)
      for (let c = 0; c < 3; c++) out[(Math.floor(y / by) * w + Math.floor(x / by)) * 3 + c] += pixels[(y * width + x) * 4 + c] / (by * by);
  return out;
}

/**
 * How fine each material is at 100 % of 24 MP: rms of its highest octave, beside that of the same drawn pixel for pixel at 2048, and without full detail; and
 * how wide its sharpest edges are, where it is made of lines and specks.
 */
export async function fineness(): Promise<void> {
  const { engine, at } = await looks();
  const only = process.argv[3]?.split(',');
  console.log('material                family    at 2048    full detail (ratio)    without (ratio)    edges, px');
  let [least, sum, widest] = [Infinity, 0, 0];
  const shelf = materials.filter(({ id }) => !only || only.includes(id));
  for (const { id, family } of shelf) {
    const square = materialById(id).shape === 'square';
    const size = square ? { width: 2048, height: 2048 } : { width: 2048, height: 1376, aspect: 1.5 };
    const own = await engine.materialPixels({ id, seed: 1, params: {}, ...size });
    // All over, so that a sparse material is not judged by one place.
    const places = [0.06, 0.35, 0.62, 0.86].flatMap((x) => [0.08, 0.5, 0.84].map((y) => [x, y] as const));
    const mean = async (rms: (x: number, y: number) => Promise<number> | number) => {
      let total = 0;
      for (const [x, y] of places) total += (await rms(x, y)) ** 2;
      return Math.sqrt(total / places.length);
    };
    const native = await mean((x, y) =>
      highestOctave(own.pixels, own.width, {
        x: x * (own.width - 171),
        y: (square ? (y * 2) / 3 + 1 / 6 : y) * (own.height - 171),
        width: 170,
        height: 170,
      }),
    );
    const edges: number[] = [];
    const drawn = (full: boolean) =>
      mean(async (x, y) => {
        const pixels = await at(id, Math.round(x * (WIDTH - SIDE)), Math.round(y * (HEIGHT - SIDE)), full);
        if (full) edges.push(edgeWidth(pixels, SIDE, { x: 0, y: 0, width: SIDE, height: SIDE }));
        return highestOctave(pixels, SIDE, { x: 0, y: 0, width: SIDE, height: SIDE });
      });
    const [full, plain] = [await drawn(true), await drawn(false)];
    if (process.env.CROPS) await save(id, await at(id, 2700, 1800, true));
    const ratio = full / native;
    const isSurface = SURFACES.includes(family);
    const edge = isSurface ? NaN : Math.min(...edges.filter((width) => !Number.isNaN(width)));
    if (Number.isFinite(edge)) widest = Math.max(widest, edge);
    if (isSurface) least = Math.min(least, ratio);
    sum += ratio;
    console.log(
      `${id.padEnd(22)}  ${(isSurface ? 'surface' : 'lines').padEnd(8)} ${native.toFixed(2).padStart(6)}  ${full.toFixed(2).padStart(9)} (${ratio.toFixed(2)}) ${plain.toFixed(2).padStart(11)} (${(plain / native).toFixed(2)})${isSurface && ratio < 0.6 ? '  soft' : ''}${Number.isFinite(edge) ? `  ${edge.toFixed(1)}` : ''}`,
    );
  }
  engine.pool.close();
  line('least of the surfaces (goal 0.6)', least.toFixed(2), spin());
  line('widest of the sharpest edges of lines and specks (goal 2)', widest.toFixed(1), spin());
  line('mean of all', (sum / shelf.length).toFixed(2), spin());
}
