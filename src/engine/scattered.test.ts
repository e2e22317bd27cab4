import { modes } from '../core/blend';
import { maskParts } from '../core/mask';
import { coatSchema, type Coat } from '../core/piece/schema';
import { laySchema } from '../core/lay/lay';
import { treatments } from '../core/treatments';
import { panelValues } from '@/testing/chance';
import { numbers } from '@/testing/machine';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(120_000);

// Pieces made up by chance, drawn at the size of an export and small: whatever is asked for within the panels' ranges is drawn, and much the same.
const [W, H] = [900, 600];
const scene = Uint8Array.from({ length: W * H * 4 }, (_, i) => {
  const [x, y, c] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W), i % 4];
  return c === 3 ? 255 : 128 + 70 * Math.sin((x + 40 * c) / 90) + 40 * Math.cos(y / (60 + 20 * c)) + (x > 400 && y > 250 ? 15 : 0);
});
let engine: Engine;
beforeAll(async () => {
  engine = await nodeEngine({ size: 2, decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, scene) }) });
});
afterAll(() => engine.pool.close());

function maker(seed: number) {
  const random = numbers(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const values = (schema: Parameters<typeof panelValues>[0], skip?: string[]) => panelValues(schema, random, skip);
  // A poster's steps and hard black and white fall otherwise on a small drawing.
  const gentle = treatments.filter((t) => t.kind !== 'posterise');
  const treatment = () => {
    const { kind, schema } = pick(gentle);
    return { kind, ...values(schema), strength: pick([1, 0.5]), mode: pick(['normal', 'normal', 'soft-light']) };
  };
  const part = () => {
    const { kind, schema } = pick(maskParts.filter(({ kind }) => !['coat', 'guard', 'colours'].includes(kind)));
    const stroke = {
      does: pick(['take', 'put']),
      size: 20 + 600 * random(),
      hardness: random(),
      points: [
        [random(), random(), 1],
        [random(), random(), 1],
      ],
    };
    return { kind, ...values(schema), ...(kind === 'strokes' ? { strokes: [stroke] } : kind === 'material' ? { id: 'wear.splatter' } : {}) };
  };
  const sources = [
    { kind: 'below' },
    { kind: 'photo' },
    { kind: 'colour', colour: '#886644' },
    { kind: 'gradient' },
    { kind: 'material', id: 'edges.frame', seed: 2 },
  ];
  const coat = (id: string): Coat =>
    coatSchema.parse({
      id,
      source: pick(sources),
      treatments: Array.from({ length: Math.floor(random() * 4) }, treatment),
      blend: pick(modes.filter((m) => m.id !== 'hard-step')).id,
      strength: 0.2 + 0.8 * random(),
      lay: values(laySchema, ['corners', 'fit']),
      ...(random() < 0.6 && {
        mask: { start: pick(['all', 'none']), parts: [part()], feather: pick([0, 30, 200]), expand: pick([0, -100, 100]), refine: pick([0, 1]) },
      }),
    });
  return () => [coat('a'), coat('b')];
}

it.each([1, 2, 3, 4])('pieces made up by chance are drawn at the size of an export as they are small (%d)', async (seed) => {
  const piece = maker(seed);
  const photo = { key: 'k', name: 'k', width: W, height: H };
  // Three pixels to a u; 480 of them are five of the small drawing's.
  const scale = 6.6667;
  const large = { x: 2400, y: 1440, width: 480, height: 480 };
  const small = { x: 25, y: 15, width: 5, height: 5 };
  for (let n = 0; n < 12; n++) {
    const of = { coats: piece(), strength: 1, photo };
    const mean = async (region: typeof large, at: number) => {
      const pixels = await engine.draw({ piece: of, region, scale: at, tile: engine.largeTile }, (p) => p.slice());
      return [0, 1, 2].map((c) => pixels.reduce((sum, v, i) => (i % 4 === c ? sum + v : sum), 0) / (pixels.length / 4));
    };
    const [one, other] = [await mean(large, scale), await mean(small, scale / 96)];
    const apart = Math.max(...one.map((v, c) => Math.abs(v - other[c])));
    // The coats are said by the failure.
    expect({ apart: apart < 32, coats: of.coats }).toEqual({ apart: true, coats: of.coats });
  }
});
