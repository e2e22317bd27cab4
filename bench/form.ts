import { mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { toBase64 } from '../src/core/guards/bytes';
import { onSkin } from '../src/core/piece/onSkin';
import { coatSchema, type Coat } from '../src/core/piece/schema';
import { nodeEngine } from '../src/engine/node';
import { keeperFaceAt } from '../src/testing/keeper';
import { rendering } from './memory';
import { line, spin, timed } from './probe';

/** The photograph of the keeper at so many pixels, with its face and person as they are found on it. */
async function keeperAt(width: number, height: number) {
  const pixels = new Uint8Array(await sharp('demo/photos/keeper.jpg').resize(width, height).ensureAlpha().raw().toBuffer());
  const map = Uint8Array.from({ length: 80 * 100 }, (_, i) => (Math.hypot((i % 80) - 40, Math.floor(i / 80) - 45) < 34 || i / 80 > 70 ? 255 : 0));
  const long = Math.max(width, height);
  const face = keeperFaceAt(0.49 * width, 0.5 * height, height / 1500, long);
  const make = async (size = 2) => {
    const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
      size,
      find: async () => ({ version: 1, faces: [face], person: { width: 80, height: 100, map: toBase64(map) } }),
      decode: async () => ({ width, height, place: async (at) => engine.pool.write(at, pixels) }),
    });
    return engine;
  };
  return { make, photo: { key: 'keeper', name: 'k', width, height } };
}

const coat = (values: object): Coat => coatSchema.parse({ id: 'a', ...values });
const [grain] = onSkin;
const skin = (): Coat[] => grain.coats(() => 'a', { direction: 300, elevation: 40 });
/** Steps of drags at 0.4 MP: a drape by what lies below and by the form of a face, and a stroke that moves a texture. */
export async function formDrags(): Promise<void> {
  const { make, photo } = await keeperAt(2400, 3000);
  const engine = await make();
  const view = { region: { x: 0, y: 0, width: 566, height: 707 }, scale: 0.2358, chosen: 'a' };
  const draw = (coats: Coat[]) => engine.draw({ piece: { coats, strength: 1, photo }, ...view }, (p) => p[0], { quick: true });
  const source = { kind: 'material', id: 'masonry.brick', seed: 1, params: {} };
  const common = { source, blend: 'multiply', strength: 0.7 };
  let turn = 0;
  await engine.draw(
    { piece: { coats: [coat({ ...common, treatments: [{ kind: 'drape', map: 'form' }] })], strength: 1, photo }, ...view },
    (p) => p[0],
  );
  for (const [name, values] of [
    ['what lies below', () => ({ map: 'below', amountX: 12 + 0.1 * ++turn, amountY: 12 })],
    ['the form of the face', () => ({ map: 'form', form: 0.5 + 0.001 * ++turn })],
  ] as const) {
    const drag = await timed(() => draw([coat({ ...common, treatments: [{ kind: 'drape', ...values() }] })]), 25);
    line(`drape by ${name}, step of a drag at 0.4 MP, median (goal 40)`, `${drag.median.toFixed(0)} ms`, drag.probe);
  }
  // As on the page, where points are only added: the others stay the same objects.
  const nudged = coat({ ...common, treatments: [{ kind: 'nudge', strokes: [{ size: 240, points: [[0.3, 0.5, 1]] }] }] });
  const [step] = nudged.treatments as unknown as { strokes: { points: [number, number, number][] }[] }[];
  let [stroke] = step.strokes;
  const nudge = await timed(() => {
    const n = stroke.points.length;
    stroke = { ...stroke, points: [...stroke.points, [0.3 + 0.004 * n, 0.5 + 0.05 * Math.sin(n / 6), 1]] };
    return draw([{ ...nudged, treatments: [{ ...step, strokes: [stroke] }] as unknown as Coat['treatments'] }]);
  }, 60);
  line('nudge, a point of a stroke at 0.4 MP, median (goal 33)', `${nudge.median.toFixed(0)} ms`, nudge.probe);
  engine.pool.close();
}

/** Skin grain in one tap: from known faces to its first whole picture, nothing made before. */
export async function skinFirst(): Promise<void> {
  const { make, photo } = await keeperAt(2400, 3000);
  const times: number[] = [];
  let probe = Infinity;
  for (let i = 0; i < 3; i++) {
    const engine = await make();
    const view = { region: { x: 0, y: 0, width: 720, height: 900 }, scale: 0.3 };
    await engine.draw({ piece: { coats: [], strength: 1, photo }, ...view }, (p) => p[0]);
    await engine.guards.find(photo);
    const once = await timed(async () => {
      await engine.forms.light({ photo, guards: undefined });
      await engine.draw({ piece: { coats: skin(), strength: 1, photo }, ...view }, (p) => p[0]);
    }, 1);
    times.push(once.best);
    probe = Math.min(probe, once.probe);
    engine.pool.close();
  }
  line('skin grain in one tap to its first whole picture (goal 2000)', `${times.map((t) => t.toFixed(0)).join(', ')} ms`, probe);
}

/** The sample piece of retouched skin exported at 24 MP by the command line, with and without form, focus and light. */
export async function skinExport(): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bench-'));
  const photo = path.join(folder, 'photo.jpg');
  await sharp('demo/photos/signal-officer.jpg').resize(4380, 5475).jpeg({ quality: 92 }).toFile(photo);
  const full = JSON.parse(readFileSync('demo/pieces/retouched.json', 'utf8')) as { coats: Partial<Coat>[] };
  const without = (one: Partial<Coat>) => ({
    ...one,
    treatments: (one.treatments ?? []).filter(({ kind }) => !['relief', 'drape', 'focus'].includes(kind as string)),
    mask: { ...one.mask, parts: one.mask?.parts?.filter(({ kind }) => kind !== 'contour') ?? [] },
  });
  const plain = { ...full, coats: full.coats.map(without) };
  const best = (recipe: object) => Math.min(...Array.from({ length: 2 }, () => rendering({ folder, photo }, recipe).time));
  const [a, b] = [best(plain), best(full)];
  line('retouched skin at 24 MP without form, focus and light', `${a.toFixed(0)} ms`, spin());
  line('the same with them', `${b.toFixed(0)} ms`, spin());
  line('ratio (goal 1.3 ×)', `${(b / a).toFixed(2)} ×`, spin());
}
