import type { Need } from '../graph/needs';
import { extentOf, planOf, type TestDrawing } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema } from '../piece/schema';
import { readySchema } from '../ready/schema';
import { unitOf } from '../image/unit';
import { controlsOf } from '../schema';
import { treatments } from '../treatments';
import { Puller } from './pull';

// Scratch memory holds what the tile before has left there: no result may depend on it.
const bench = testBench(128);
const { machine, scratch } = bench;
const [W, H] = [400, 300];
const photo = bench.picture(W, H, (x, y) => [(x * 7 + y * 3) % 256, (x * 2 + y * 11) % 256, (x * y) % 256]);

const survey = (value: number) => {
  const at = bench.take(40 * 30 * 8 + 4096);
  machine.floats.fill(value, at / 4, at / 4 + 40 * 30 * 2 + 64);
  return {
    kind: 'survey' as const,
    survey: {
      slope: at,
      offset: at + 40 * 30 * 4,
      width: 40,
      height: 30,
      low: 0.1,
      middle: 0.4,
      high: 0.9,
      palette: [0.1, 0.1, 0.15, 0.35, 0.3, 0.2, 0.5, 0.5, 0.5, 0.8, 0.75, 0.7],
    },
  };
};
const measured = survey(0.5);

function strong(schema: Parameters<typeof controlsOf>[0]): Record<string, unknown> {
  return Object.fromEntries(
    controlsOf(schema).flatMap(({ key, meta, neutral }) => {
      // The test has no guards.
      if (key === 'keep') return [[key, 0]];
      if (meta.control === 'slider') return [[key, key === 'levels' ? 5 : ((meta.min ?? 0) + 3 * (meta.max ?? 1)) / 4]];
      return meta.control === 'toggle' ? [[key, true]] : [[key, neutral]];
    }),
  );
}

type Region = { x: number; y: number; width: number; height: number };

/** A region of the photo is its own light and dark. */
const loaded = ({ need }: Need) => (need === 'survey' ? measured : need === 'guard' ? { kind: 'picture' as const, picture: photo } : undefined);

/** Values of a tile drawn on scratch memory that holds one value everywhere. */
function drawn(drawing: Omit<TestDrawing, 'photo'>, region: Region, garbage: number, unit = 0.5): Float32Array {
  const plan = planOf({ photo, load: loaded, ...drawing });
  scratch.reset();
  const at = scratch.mark() / 4;
  machine.floats.fill(garbage, at, at + 2 ** 21);
  const tile = new Puller(machine, scratch, plan.graph, { ...extentOf(plan.frame, plan.scale), unit }).pull(plan.graph.root, region);
  const out: number[] = [];
  for (let c = 0; c < 4; c++) for (let i = 0; i < region.width * region.height; i++) out.push(machine.floats[(tile.ptr + c * tile.stride) / 4 + i]);
  return Float32Array.from(out);
}

const regions = [
  // Beyond the picture.
  { x: 440, y: 320, width: 20, height: 16 },
  { x: 128, y: 0, width: 12, height: 105 },
  { x: 391, y: 100, width: 9, height: 33 },
  { x: 0, y: 299, width: 65, height: 1 },
  { x: 50, y: 60, width: 31, height: 29 },
];

function expectSame(drawing: Omit<TestDrawing, 'photo'>, unit?: number): void {
  for (const region of regions) {
    const [one, other] = [0, 0.9].map((garbage) => drawn(drawing, region, garbage, unit));
    expect({ region, apart: one.reduce((most, v, i) => Math.max(most, Math.abs(v - other[i])), 0) }).toEqual({ region, apart: 0 });
  }
}

/** The most by which a part of a drawing differs from the same place of a larger tile of it. */
function apartInLarger(coats: TestDrawing['coats'], unit?: number): number {
  const part = { x: 150, y: 90, width: 60, height: 44 };
  const whole = { x: 96, y: 32, width: 176, height: 152 };
  const [one, other] = [part, whole].map((region) => drawn({ coats }, region, 0, unit));
  let most = 0;
  for (let c = 0; c < 3; c++)
    for (let y = 0; y < part.height; y++)
      for (let x = 0; x < part.width; x++) {
        const there = c * whole.width * whole.height + (y + part.y - whole.y) * whole.width + x + part.x - whole.x;
        most = Math.max(most, Math.abs(one[c * part.width * part.height + y * part.width + x] - other[there]));
      }
  return most;
}

it.each(treatments.map((t) => t.kind))('%s reads nothing that was not drawn', (kind) => {
  const { schema } = treatments.find((t) => t.kind === kind)!;
  const coats = [coatSchema.parse({ id: 'a', source: { kind: 'below' }, treatments: [{ kind, ...strong(schema) }] })];
  // Small, and as large as an export.
  for (const unit of [0.05, 0.5, 2]) expectSame({ coats }, unit);
});

it.each([
  ['upright', {}],
  ['turned', { crop: { x: 0.02, y: 0.05, w: 0.8, h: 0.85, turn: 3 } }],
  ['a quarter turned', { quarter: 1 }],
  [
    'in perspective',
    {
      perspective: {
        corners: [
          [0.1, 0],
          [0.9, 0.1],
          [1, 1],
          [0, 0.9],
        ],
      },
    },
  ],
  ['through a lens', { lens: { k1: -0.1, red: 1, corners: 0.5 } }],
])('the photo %s reads nothing that was not drawn, at any size', (_name, ready) => {
  for (const scale of [0.3, 0.5, 0.97, 1, 1.7]) expectSame({ ready: readySchema.parse(ready), scale });
});

it.each(treatments.flatMap(({ kind }) => [[kind, 'softened'] as const, [kind, 'sharp'] as const]))(
  'a tile of %s is what a larger tile has there (%s)',
  (kind, how) => {
    const { schema } = treatments.find((t) => t.kind === kind)!;
    // Without what it softens first, it reads just as far as it says.
    const sharp = how === 'sharp' ? { ...('soften' in schema.shape && { soften: 0 }), ...('blur' in schema.shape && { blur: 0 }) } : {};
    const coats = [coatSchema.parse({ id: 'a', source: { kind: 'below' }, treatments: [{ kind, ...strong(schema), ...sharp }] })];
    // Within a level: box means are differences of running sums in f32, which depend on where a row begins; so do the cells of a wide Gaussian.
    expect(apartInLarger(coats)).toBeLessThan(1 / 255);
  },
);

const points = Array.from({ length: 30 }, (_, i) => [i / 29, 0.5 + 0.3 * Math.sin(i / 4), 0.3 + 0.7 * (i % 2)]);
it.each<[string, object]>([
  [
    'marks',
    {
      kind: 'strokes',
      strokes: [
        { points, size: 150, hardness: 0.2 },
        { points: points.slice(0, 9), size: 300, does: 'take', strength: 0.5 },
      ],
    },
  ],
  ['raised marks that glow', { kind: 'strokes', relief: 1, glow: 1, glowSize: 60, strokes: [{ points, size: 150 }] }],
  ['splatter', { kind: 'splatter', over: 'all', count: 600, size: 40, relief: -1 }],
  ['a ruled border', { kind: 'border', inset: 200, width: 20, lines: 3 }],
  ['a brushed border', { kind: 'border', style: 'brushed', inset: 300 }],
  ['a torn border', { kind: 'border', style: 'torn', inset: 300, wobble: 1, relief: 0.5 }],
  ['a signature', { kind: 'signature', lines: [points.map(([x, y, p]) => [x, y / 3, p])], size: 900, width: 30, margin: 300 }],
])('a tile of %s is what a larger tile has there, and reads nothing that was not drawn', (_name, source) => {
  const coats = [coatSchema.parse({ id: 'a', source, blend: 'normal', guards: 0 })];
  for (const unit of [0.2, 0.5]) expectSame({ coats }, unit);
  expect(apartInLarger(coats, unitOf({ width: W, height: H }))).toBeLessThan(1 / 255);
});
