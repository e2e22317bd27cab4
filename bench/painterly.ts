import { createRequire } from 'node:module';
import { shippedLooks } from '../src/core/looks';
import { coatSchema } from '../src/core/piece/schema';
import { nodeEngine } from '../src/engine/node';
import { line, spin, timed } from './probe';
import { scene } from './stack';

interface OpenCv {
  Mat: new () => { delete(): void };
  matFromArray(rows: number, columns: number, type: number, values: ArrayLike<number>): { delete(): void };
  CV_8UC3: number;
  BORDER_REPLICATE: number;
  bilateralFilter(from: object, to: object, diameter: number, colour: number, space: number, border: number): void;
}

/** The looks that treat the photo itself. */
export const painterly = ['watercolour', 'ink-and-wash', 'pastel', 'oil', 'palette-knife', 'poster-colours', 'pencil-drawing', 'soft-glow'];

const below = (treatment: object) => coatSchema.parse({ id: 'a', source: { kind: 'below' }, blend: 'normal', treatments: [treatment], guards: 0 });
const engineOn = async (width: number, height: number) => {
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    size: 2,
    decode: async () => ({ width, height, place: async (at) => engine.pool.write(at, scene(width, height)) }),
  });
  return engine;
};

/** What simplifies a picture, at 24 MP, against OpenCV’s bilateral filter of the same radius by the megapixel; and a step of a drag of it at 0.4 MP. */
export async function simplifying(): Promise<void> {
  const [width, height] = [6000, 4000];
  const engine = await engineOn(width, height);
  const photo = { key: 'k', name: 'k', width, height };
  const treatments = {
    smooth: { kind: 'smooth', radius: 6, tolerance: 20, passes: 1 },
    patches: { kind: 'patches', size: 12 },
    flow: { kind: 'flow' },
    dabs: { kind: 'dabs' },
    ink: { kind: 'ink' },
  };
  const at24: Record<string, { best: number; probe: number }> = {};
  for (const [kind, treatment] of Object.entries(treatments)) {
    const piece = { coats: [below(treatment)], strength: 1, photo };
    at24[kind] = await timed(() => engine.draw({ piece, region: { x: 0, y: 0, width, height }, scale: 1, tile: engine.largeTile }, (p) => p[0]), 2);
    line(
      `${kind} at 24 MP, two workers${kind === 'patches' || kind === 'flow' ? ' (goal 12 s)' : ''}`,
      `${at24[kind].best.toFixed(0)} ms`,
      at24[kind].probe,
    );
    let turn = 0;
    const drag = await timed(() => {
      const changed = { ...treatment, strength: 0.9 + 0.001 * ++turn };
      const coats = [below(changed)];
      return engine.draw({ piece: { ...piece, coats }, region: { x: 0, y: 0, width: 786, height: 520 }, scale: 0.131, chosen: 'a' }, (p) => p[0], {
        quick: true,
      });
    }, 12);
    line('  step of a drag of its strength at 0.4 MP, median', `${drag.median.toFixed(0)} ms`, drag.probe);
  }
  engine.pool.close();
  const { cv } = createRequire(import.meta.url)('opencv-wasm') as { cv: OpenCv };
  // A part of it, in one thread: 6 u are 18 pixels at 24 MP.
  const [w, h] = [600, 400];
  const pixels = scene(w, h);
  const rgb = Uint8Array.from({ length: w * h * 3 }, (_, i) => pixels[Math.floor(i / 3) * 4 + (i % 3)]);
  const [from, to] = [cv.matFromArray(h, w, cv.CV_8UC3, rgb), new cv.Mat()];
  const theirs = await timed(() => Promise.resolve(cv.bilateralFilter(from, to, 37, 20, 9, cv.BORDER_REPLICATE)), 2);
  const perMegapixel = { ours: at24.smooth.best / 24, theirs: theirs.best / ((w * h) / 1e6) };
  line('smooth a megapixel, two workers', `${perMegapixel.ours.toFixed(0)} ms`, at24.smooth.probe);
  line('OpenCV’s bilateral filter of 37 pixels a megapixel, one thread', `${perMegapixel.theirs.toFixed(0)} ms`, theirs.probe);
  line('ratio (goal 4 ×)', `${(perMegapixel.theirs / perMegapixel.ours).toFixed(1)} ×`, spin());
}

/** Each painterly look at 1.5 MP, once its materials are made, and its first coarse picture. */
export async function painterlyLooks(): Promise<void> {
  const [width, height] = [1500, 1000];
  const engine = await engineOn(width, height);
  const photo = { key: 'k', name: 'k', width, height };
  for (const id of painterly) {
    const recipe = shippedLooks.find((l) => l.id === id)?.recipe as unknown as { coats: { treatments?: object[] }[] };
    // Without faces: they are found once for a photo.
    const coats = recipe.coats.map((coat, i) =>
      coatSchema.parse({ ...coat, id: `c${i}`, treatments: (coat.treatments ?? []).map((t) => ('keep' in t ? { ...t, keep: 0 } : t)) }),
    );
    const piece = { coats, strength: 1, photo };
    const region = { x: 0, y: 0, width, height };
    await engine.draw({ piece, region, scale: 1, tile: engine.largeTile }, (p) => p[0]);
    const whole = await timed(() => engine.draw({ piece, region, scale: 1, tile: engine.largeTile }, (p) => p[0]), 2);
    const small = { x: 0, y: 0, width: 195, height: 130 };
    const first = await timed(() => engine.draw({ piece, region: small, scale: 0.13 }, (p) => p[0], { quick: true }), 2);
    line(`${id} at 1.5 MP (goal 3 s); first, coarse (goal 600 ms)`, `${whole.best.toFixed(0)}; ${first.best.toFixed(0)} ms`, whole.probe);
  }
  engine.pool.close();
}
