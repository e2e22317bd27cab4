import { modes } from '../core/blend';
import { toBase64 } from '../core/guards/bytes';
import { guardsSchema, regionIds } from '../core/guards/schema';
import { nudges } from '../core/nudge/schema';
import { maskParts } from '../core/mask';
import { coatSchema, pieceSchema, type Coat, type Piece } from '../core/piece/schema';
import { setReady } from '../core/piece/rebase';
import { readySchema } from '../core/ready/schema';
import { treatments } from '../core/treatments';
import { keeperFaceAt } from '@/testing/keeper';
import { freeze, numbers } from '@/testing/machine';
import { panelValues } from '@/testing/chance';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(300_000);

// Warm equals fresh: whatever has been drawn before, a drawing is the same. Pieces and edits are made up by chance; each step is drawn by an engine that has
// been warm all along and by one that has never drawn anything of it.
const EDITS = 200;
const SEED = Number(process.env.SEED ?? 5);
const [W, H] = [280, 210];
const inside = (x: number, y: number) => Math.hypot(x - 110, y - 110) < 50;
const scene = (key: string) =>
  Uint8Array.from({ length: W * H * 4 }, (_, i) => {
    const [x, y, c] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W), i % 4];
    if (c === 3) return 255;
    const ground = 110 + 60 * Math.sin((x + 20 * c) / 31) * Math.cos(y / (27 + 5 * c)) + ((x * 7 + y * 13) % 9);
    return key === 'other' ? 255 - ground : inside(x, y) ? 200 - 30 * c : ground;
  });
const pictures = new Map(['photo', 'other'].map((key) => [key, scene(key)]));
const people = Uint8Array.from({ length: 70 * 52 }, (_, i) => (inside((i % 70) * 4 + 2, Math.floor(i / 70) * 4 + 2) ? 255 : 0));

const engines: Engine[] = [];
async function make(keeps = true): Promise<Engine> {
  const engine: Engine = await nodeEngine({
    size: 1,
    keeps,
    find: async () => ({ version: 1, faces: [keeperFaceAt(110, 100, 0.16, W)], person: { width: 70, height: 52, map: toBase64(people) } }),
    decode: async (key) => ({ width: W, height: H, place: async (at) => engine.pool.write(at, pictures.get(key) as Uint8Array<ArrayBuffer>) }),
  });
  engines.push(engine);
  return engine;
}
afterAll(() => engines.forEach((engine) => engine.pool.close()));

const random = numbers(SEED);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
const chance = (share: number) => random() < share;
const IDS = ['a', 'b', 'c', 'd'];

const nudge = () => ({
  does: pick(nudges).value,
  size: 30 + 400 * random(),
  strength: random(),
  points: Array.from({ length: 2 + Math.floor(random() * 3) }, () => [random(), random(), 0.5 + random() / 2]),
});
/** What a step reads as a map, where that is another picture. */
const map = () => pick<object>([{ file: 'other' }, { material: { id: 'edges.frame', seed: 2 } }, {}]);
function treatment() {
  // A poster's steps turn a rounding to 16 bits into a whole step.
  const { kind, schema } = pick(treatments.filter((t) => t.kind !== 'posterise'));
  const own: Record<string, object> = {
    nudge: { strokes: Array.from({ length: Math.floor(random() * 3) }, nudge) },
    drape: map(),
    light: map(),
    relief: map(),
  };
  return {
    kind,
    ...panelValues(schema, random),
    ...own[kind],
    strength: pick([1, 0.5]),
    mode: pick(['normal', 'normal', 'soft-light']),
    active: chance(0.9),
  };
}
const stroke = () => ({
  does: pick(['take', 'put', 'level']),
  size: 20 + 500 * random(),
  hardness: random(),
  ring: chance(0.2),
  tip: pick(['round', 'flat', 'cut']),
  material: pick<object>([{ id: 'brush.dry', seed: 1 }, { file: 'other' }]),
  marks: pick(['lights', 'darks']),
  points: Array.from({ length: 2 + Math.floor(random() * 4) }, () => [random(), random(), 0.5 + random() / 2]),
});
const mark = () => ({ ...stroke(), does: pick(['put', 'put', 'take']), colour: pick([undefined, '#2050a0']), varySize: pick([0, 0.6]), seed: 3 });
function part() {
  const { kind, schema } = pick(maskParts);
  const own: Record<string, object> = {
    strokes: { strokes: Array.from({ length: 1 + Math.floor(random() * 3) }, stroke) },
    material: pick<object>([{ id: 'wear.splatter' }, { file: 'other' }]),
    coat: { coat: pick(IDS) },
    colours: { picked: ['#a08060'] },
  };
  return { kind, ...panelValues(schema, random), ...own[kind] };
}
const mask = () => ({
  start: pick(['all', 'none']),
  parts: Array.from({ length: 1 + Math.floor(random() * 3) }, part),
  density: pick([1, 0.7]),
  feather: pick([0, 0, 60]),
  expand: pick([0, 0, -40]),
  refine: pick([0, 0, 1]),
  anchor: pick(['photo', 'photo', 'lay']),
  base: {},
});
const source = () =>
  pick<object>([
    { kind: 'below' },
    { kind: 'below' },
    { kind: 'photo' },
    { kind: 'colour', colour: pick(['#886644', '#224466']) },
    { kind: 'gradient' },
    { kind: 'grain', even: chance(0.5) },
    { kind: 'material', id: 'edges.frame', seed: pick([2, 5]) },
    { kind: 'picture', file: 'other', width: W, height: H },
    { kind: 'cutout' },
    { kind: 'strokes', glow: pick([0, 0.5]), relief: pick([0, -0.5]), strokes: Array.from({ length: Math.floor(random() * 4) }, mark) },
    { kind: 'splatter', over: pick(['throw', 'all']), size: 40 },
    { kind: 'border', style: pick(['ruled', 'brushed', 'torn']), relief: pick([0, 0.5]) },
    {
      kind: 'signature',
      lines: [
        [
          [0, 0, 1],
          [0.5, 0.3, 0.5],
          [1, 0, 1],
        ],
      ],
      size: 600,
      width: 20,
    },
  ]);
// Hard black and white turn a rounding into a whole step too.
const blends = modes.filter((m) => !['hard-step', 'color-burn', 'color-dodge', 'vivid-light', 'divide', 'hue', 'saturation', 'color'].includes(m.id));
const coat = (id: string): Coat =>
  coatSchema.parse({
    id,
    source: source(),
    treatments: Array.from({ length: Math.floor(random() * 3) }, treatment),
    blend: pick(blends).id,
    strength: 0.2 + 0.6 * random(),
    lay: { scale: 0.5 + random(), turn: pick([0, 20]), ...pick([{}, {}, { fit: 'tile', mix: true }, { faces: true, mix: true }]) },
    limits: pick([
      [0, 0, 1, 1],
      [0.1, 0.4, 0.6, 0.9],
    ]),
    guards: pick([0, 1]),
    ...(chance(0.7) && { mask: mask() }),
  });
const guards = () =>
  guardsSchema.parse({
    regions: Object.fromEntries(
      ['subject', 'detail', 'painted'].map((id) => [id, { amount: random(), ...(chance(0.3) && { strokes: [stroke()] }) }]),
    ),
    hints: chance(0.3) ? [{ keep: true, points: [[random(), random()]] }] : [],
    hairs: chance(0.3) ? [{ size: 40, points: [[0.4, 0.4]] }] : [],
  });
const ready = () =>
  readySchema.parse({
    ...(chance(0.5) && { crop: { x: 0.1 * random(), y: 0.05, w: 0.8, h: 0.85, turn: pick([0, 3]) } }),
    ...(chance(0.2) && { lens: { k1: -0.1, corners: 0.4 } }),
    ...(chance(0.5) && { tone: { exposure: random() } }),
    ...(chance(0.4) && { even: { amount: random() } }),
    ...(chance(0.3) && { localContrast: { amount: 0.5 } }),
    ...(chance(0.3) && { noise: { luma: 0.5 } }),
    ...(chance(0.3) && { whiteBalance: { neutral: [random(), random()] } }),
    ...(chance(0.3) && { spots: [{ points: [[random(), random()]], size: 50, from: [0.1, 0.1] }] }),
  });

const changeOne = (piece: Piece, change: (c: Coat) => Coat): Piece => {
  const id = pick(piece.coats).id;
  return { ...piece, coats: piece.coats.map((c) => (c.id === id ? change(c) : c)) };
};
/** What hands do on the bench; each shares with the piece before all that it does not touch. */
const edits: Record<string, (piece: Piece) => Piece> = {
  strength: (p) => changeOne(p, (c) => ({ ...c, strength: 0.2 + 0.6 * random() })),
  treatments: (p) => changeOne(p, (c) => ({ ...c, treatments: coat(c.id).treatments })),
  'a slider of a treatment': (p) =>
    changeOne(p, (c) => ({ ...c, treatments: c.treatments.map((t, i) => (i === c.treatments.length - 1 ? { ...t, strength: random() } : t)) })),
  mask: (p) => changeOne(p, (c) => ({ ...c, mask: coatSchema.parse({ id: 'm', source: { kind: 'below' }, mask: mask() }).mask })),
  'a stroke more': (p) =>
    changeOne(p, (c) => {
      const strokes = coatSchema.parse({ id: 'm', source: { kind: 'below' }, mask: { parts: [{ kind: 'strokes', strokes: [stroke()] }] } }).mask
        .parts;
      return { ...c, mask: { ...c.mask, parts: [...c.mask.parts.slice(-2), ...strokes] } };
    }),
  'a stroke goes on': (p) =>
    changeOne(p, (c) => {
      const parts = c.mask.parts.map((part, i) => {
        const strokes = part.strokes as { points: number[][] }[] | undefined;
        if (i < c.mask.parts.length - 1 || !strokes || strokes.length === 0) return part;
        const last = strokes[strokes.length - 1];
        return { ...part, strokes: [...strokes.slice(0, -1), { ...last, points: [...last.points, [random(), random(), 1]] }] } as typeof part;
      });
      return { ...c, mask: { ...c.mask, parts } };
    }),
  'a mark more': (p) =>
    changeOne(p, (c) =>
      c.source.kind === 'strokes'
        ? {
            ...c,
            source: coatSchema.parse({
              id: 'm',
              source: { ...c.source, strokes: [...(c.source as unknown as { strokes: object[] }).strokes, mark()] },
            }).source,
          }
        : c,
    ),
  'a nudge goes on': (p) =>
    changeOne(p, (c) => ({
      ...c,
      treatments: c.treatments.map((step) => {
        const { strokes } = step as { strokes?: { points: number[][] }[] };
        if (step.kind !== 'nudge' || !strokes || strokes.length === 0) return step;
        const last = strokes[strokes.length - 1];
        return { ...step, strokes: [...strokes.slice(0, -1), { ...last, points: [...last.points, [random(), random(), 1]] }] } as typeof step;
      }),
    })),
  source: (p) => changeOne(p, (c) => ({ ...c, source: coat(c.id).source })),
  lay: (p) => changeOne(p, (c) => ({ ...c, lay: { ...c.lay, scale: 0.5 + random() } })),
  'guards of a coat': (p) =>
    changeOne(p, (c) => ({ ...c, guards: random(), guardAmounts: chance(0.5) ? { [pick(regionIds)]: random() } : undefined })),
  guards: (p) => ({ ...p, guards: chance(0.8) ? guards() : undefined }),
  'an amount': (p) => ({
    ...p,
    guards: p.guards && { ...p.guards, regions: { ...p.guards.regions, subject: { ...p.guards.regions.subject, amount: random() } } },
  }),
  ready: (p) => setReady(p, ready()),
  order: (p) => ({ ...p, coats: [...p.coats].sort(() => random() - 0.5) }),
  hidden: (p) => changeOne(p, (c) => ({ ...c, visible: !c.visible })),
  'overall strength': (p) => ({ ...p, strength: pick([1, 1, 0.6]) }),
};

const blank = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'p',
  created: 0,
  changed: 0,
  photo: { key: 'photo', name: 'p', width: W, height: H },
});
const places = [
  { scale: 0.5, region: { x: 0, y: 0, width: 140, height: 105 } },
  { scale: 1, region: { x: 40, y: 30, width: 130, height: 140 } },
];

/** A series of edits and the ways in which each is looked at. */
function* series(count: number) {
  let piece: Piece = freeze({ ...blank, coats: IDS.map(coat), guards: guards() });
  const past: Piece[] = [];
  let chosen: string | undefined = 'c';
  let place = places[0];
  for (let n = 0; n < count; n++) {
    const name = past.length > 0 && chance(0.15) ? 'undo' : pick(Object.keys(edits));
    if (name === 'undo') piece = past.pop() as Piece;
    else {
      past.push(piece);
      piece = freeze(edits[name](piece));
    }
    if (chance(0.15)) chosen = pick([...IDS, undefined]);
    if (chance(0.1)) place = pick(places);
    yield { number: n, name, piece, chosen, ...place };
  }
}
const draw = (
  engine: Engine,
  { piece, chosen, scale, region }: { piece: Piece; chosen?: string; scale: number; region: (typeof places)[0]['region'] },
  quick = false,
) => engine.draw({ piece, region, scale, chosen }, (p) => Buffer.from(p), { quick });

it(`a drawing is the same whatever was drawn before (SEED=${SEED})`, async () => {
  console.log(`warm equals fresh: SEED=${SEED}`);
  const warm = await make();
  const bare = await make(false);
  const fresh = await make(false);
  for (const step of series(EDITS)) {
    // A hand that drags draws quickly first.
    if (chance(0.3)) await draw(warm, step, true);
    const [one, kept] = [await draw(warm, step), await draw(warm, step)];
    fresh.forget();
    const want = await draw(fresh, step);
    const furthest = (a: Buffer) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - want[i])), 0);
    const said = {
      seed: SEED,
      edit: `${step.number} ${step.name}`,
      chosen: step.chosen,
      coats: JSON.stringify(step.piece.coats),
      ready: JSON.stringify(step.piece.ready),
    };
    const apart = [furthest(one), furthest(kept)];
    if (apart.some((v) => v > 1)) expect({ ...said, apart }).toEqual({ ...said, apart: 'at most 1' });
    // With keeping switched off, to the byte.
    expect({ ...said, same: want.equals(await draw(bare, step)) }).toEqual({ ...said, same: true });
  }
});
