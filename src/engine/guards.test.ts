import { GRID, MESH_POINTS, type Finding } from '../core/guards/finding';
import { toBase64 } from '../core/guards/bytes';
import { guardsSchema } from '../core/guards/schema';
import { coatSchema, type Piece } from '../core/piece/schema';
import { readySchema } from '../core/ready/schema';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(60_000);

const W = 400;
const H = 300;
// A red disc in front of green: what the made-up finder calls a person.
const inside = (x: number, y: number) => Math.hypot(x - 150, y - 160) < 70;
const bytes = Uint8Array.from({ length: W * H * 4 }, (_, i) => {
  const [x, y] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W)];
  return inside(x, y) ? [200, 40, 40, 255][i % 4] : [40, 160, 70, 255][i % 4];
});
/** A face whose mesh points all lie on one oval about (cx, 80). */
const face = (score: number, cx: number): Finding['faces'][number] => ({
  score,
  mesh: Array.from({ length: MESH_POINTS * 3 }, (_, i) => {
    const angle = (Math.floor(i / 3) / MESH_POINTS) * 2 * Math.PI;
    const at = [cx + 30 * Math.cos(angle), 80 + 40 * Math.sin(angle), 0][i % 3];
    return Math.round((at / W) * GRID);
  }),
});
const map = Uint8Array.from({ length: 100 * 75 }, (_, i) => (inside((i % 100) * 4 + 2, Math.floor(i / 100) * 4 + 2) ? 255 : 0));
const finding: Finding = { version: 1, faces: [face(0.9, 300), face(0.6, 100)], person: { width: 100, height: 75, map: toBase64(map) } };

const engines: Engine[] = [];
let looked = 0;
async function make(shared = true, find = async () => (looked++, finding)): Promise<Engine> {
  const engine: Engine = await nodeEngine({
    shared,
    size: 2,
    find,
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, bytes) }),
  });
  engines.push(engine);
  return engine;
}
afterAll(() => engines.forEach((e) => e.pool.close()));

const photo = { key: 'k', name: 'k.png', width: W, height: H };
const black = (more: object = {}) =>
  coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#000000' }, blend: 'normal', strength: 1, ...more });
type Drawn = Pick<Piece, 'coats' | 'strength' | 'photo' | 'ready' | 'guards'>;
const piece = (more: Partial<Drawn> = {}): Drawn => ({
  photo,
  strength: 1,
  coats: [black()],
  guards: guardsSchema.parse({ regions: { subject: { amount: 1 } } }),
  ...more,
});
async function draw(engine: Engine, of: Drawn, scale = 1, chosen?: string) {
  const size = of.ready ? { width: Math.round(W * of.ready.crop.w), height: Math.round(H * of.ready.crop.h) } : { width: W, height: H };
  const region = { x: 0, y: 0, width: Math.round(size.width * scale), height: Math.round(size.height * scale) };
  const pixels = await engine.draw({ piece: of, region, scale, chosen }, (p) => Buffer.from(p));
  return (x: number, y: number) => pixels[(y * region.width + x) * 4];
}

it('what was found is kept as the photo, by the amount; nothing is guarded before it is asked for', async () => {
  const engine = await make();
  const [none, whole, part] = [
    await draw(engine, piece({ guards: undefined })),
    await draw(engine, piece()),
    await draw(engine, piece({ guards: guardsSchema.parse({}) })),
  ];
  expect([none(150, 160), whole(150, 160), whole(20, 20)]).toEqual([0, 200, 0]);
  // The subject's own amount is 30 % (common practice).
  expect(part(150, 160) / 200).toBeCloseTo(0.3, 2);
  expect(looked).toBe(1);
});

it('a coat respects guards by as much as it is told, and by amounts of its own', async () => {
  const engine = await make();
  expect((await draw(engine, piece({ coats: [black({ guards: 0.5 })] })))(150, 160) / 200).toBeCloseTo(0.5, 2);
  expect((await draw(engine, piece({ coats: [black({ guardAmounts: { subject: 0.2 } })] })))(150, 160) / 200).toBeCloseTo(0.2, 2);
});

it('stays on the same points of the photo when it is cropped, turned and reduced, and on private memories', async () => {
  const ready = readySchema.parse({ crop: { x: 0.25, y: 0.2, w: 0.5, h: 0.6 } });
  const shared = await draw(await make(), piece({ ready }));
  expect([shared(50, 100), shared(195, 175)]).toEqual([200, 0]);
  const alone = await draw(await make(false), piece({ ready }));
  expect([alone(50, 100), alone(195, 175)]).toEqual([200, 0]);
  const small = await draw(await make(), piece({ ready }), 0.5);
  expect([small(25, 50), small(97, 87)]).toEqual([200, 0]);
});

it('what is kept takes on a coat’s tone without its marks when it follows the tone', async () => {
  const engine = await make();
  const regions = (follow: number) => guardsSchema.parse({ regions: { subject: { amount: 1, follow } } });
  const tones = await Promise.all([0, 0.5, 1].map(async (follow) => (await draw(engine, piece({ guards: regions(follow) })))(150, 160)));
  // A coat of one colour is all tone.
  expect(tones[0]).toBe(200);
  expect(Math.abs(tones[1] - 100)).toBeLessThanOrEqual(2);
  expect(tones[2]).toBeLessThanOrEqual(2);
  // One with grain leaves its mean, and under a tenth of its grain.
  const grain = black({ source: { kind: 'material', id: 'skin.grain' }, blend: 'multiply' });
  const values = async (guards: Piece['guards']) => {
    const at = await draw(engine, piece({ guards, coats: [grain] }));
    const list = Array.from({ length: 40 * 40 }, (_, i) => at(130 + (i % 40), 140 + Math.floor(i / 40)));
    const mean = list.reduce((a, b) => a + b, 0) / list.length;
    return { mean, spread: Math.sqrt(list.reduce((a, v) => a + (v - mean) ** 2, 0) / list.length) };
  };
  const [free, follows] = [await values(undefined), await values(regions(1))];
  expect(free.spread).toBeGreaterThan(2);
  expect(follows.spread).toBeLessThan(0.35 * free.spread);
  expect(Math.abs(follows.mean - free.mean)).toBeLessThan(3);
});

it('a tap keeps what it touches up to its edges, and another one leaves it out again', async () => {
  const engine = await make();
  const tap = (keep: boolean, x: number, y: number, size = 500) => ({ keep, size, points: [[x / W, y / H]] });
  const kept = (...taps: object[]) => guardsSchema.parse({ regions: { subject: { amount: 0 } }, kept: taps });
  // The red disc of radius 70, by a tip of 100 pixels.
  const one = await draw(engine, piece({ guards: kept(tap(true, 150, 160)) }));
  expect([one(150, 160), one(185, 160)]).toEqual([200, 200]);
  // Beyond the disc's edge is another colour, further away than the tip reaches is nothing.
  expect(one(228, 160)).toBeLessThan(4);
  expect(one(150, 250)).toBeLessThan(4);
  const less = await draw(engine, piece({ guards: kept(tap(true, 150, 160), tap(false, 190, 160, 120)) }));
  expect(less(150, 160)).toBe(200);
  expect(less(188, 160)).toBeLessThan(40);
  // It belongs to the photo: a crop leaves it there.
  const ready = readySchema.parse({ crop: { x: 0.25, y: 0.2, w: 0.5, h: 0.6 } });
  expect((await draw(engine, piece({ guards: kept(tap(true, 150, 160)), ready })))(50, 100)).toBe(200);
});

it('can be painted on, widened and used as a mask', async () => {
  const engine = await make();
  const settings = (subject: object) => guardsSchema.parse({ regions: { subject: { amount: 1, ...subject } } });
  const stroke = { does: 'put', size: 200, hardness: 1, strength: 1, flow: 1, points: [[0.9, 0.1, 1]] };
  expect((await draw(engine, piece({ guards: settings({ strokes: [stroke] }) })))(360, 30)).toBeGreaterThan(30);
  // The disc's edge at x = 220 lies 4 pixels further out when it is widened by 40 u, a fifth of a pixel each.
  expect((await draw(engine, piece({ guards: settings({}) })))(224, 160)).toBeLessThan(8);
  expect((await draw(engine, piece({ guards: settings({ expand: 40 }) })))(224, 160)).toBeGreaterThan(30);
  const mask = { start: 'all', parts: [{ kind: 'guard', region: 'subject', op: 'subtract' }] };
  const masked = await draw(engine, piece({ guards: undefined, coats: [black({ mask })] }));
  expect([masked(150, 160), masked(20, 20)]).toEqual([200, 0]);
});

it('a stroke that grows on a guard shows what it shows when it is laid at once, also when it goes on otherwise after an undo', async () => {
  const engine = await make();
  const tip = { does: 'take', size: 150, hardness: 0.5, strength: 1, flow: 1 };
  const first: [number, number, number] = [0.2, 0.5, 1];
  const path = (rise: number): [number, number, number][] => Array.from({ length: 200 }, (_, i) => [0.2 + i * 0.002, 0.5 + rise * i * 0.001, 1]);
  const paths = { down: [first, ...path(1)], up: [first, ...path(-1)] };
  const parsed = guardsSchema.parse({
    regions: {
      subject: {
        amount: 1,
        feather: 4,
        strokes: [
          { ...tip, size: 60, points: [[0.4, 0.4, 1]] },
          { ...tip, points: [first] },
        ],
      },
    },
  });
  const { subject } = parsed.regions;
  const [early, late] = subject?.strokes ?? [];
  // What has not changed stays the same objects, as the brush leaves them.
  const guards = (points: [number, number, number][], expand = 0) => ({
    ...parsed,
    regions: { eyes: { expand }, subject: { ...subject, strokes: [early, { ...late, points }] } },
  });
  const states = [
    guards(paths.down.slice(0, 1)),
    guards(paths.down.slice(0, 90)),
    guards(paths.down.slice(0, 150)),
    guards(paths.down.slice(0, 201)),
    guards(paths.up.slice(0, 60)),
    guards(paths.up.slice(0, 140)),
    guards(paths.up.slice(0, 160), 30),
    guards(paths.up.slice(0, 190), 30),
  ];
  const amounts = [{ subject: 0.5, eyes: 1 }, { subject: 0.4 }];
  for (const state of states) {
    const fresh = await make();
    for (const amount of amounts) {
      const [warm, cold] = await Promise.all(
        [engine, fresh].map(async (one) => {
          const { picture } = await one.guards.picture({ photo, guards: state }, amount);
          return Buffer.from(one.pool.machine?.bytes.slice(picture.levels[0], picture.levels[0] + picture.width * picture.height * 4) ?? []);
        }),
      );
      expect(warm.length).toBe(cold.length);
      expect(warm.equals(cold)).toBe(true);
    }
  }
  const longest = (await engine.guards.picture({ photo, guards: states[3] }, { subject: 1 })).picture;
  const shorter = (await engine.guards.picture({ photo, guards: states[1] }, { subject: 1 })).picture;
  const sum = ({ levels, width, height }: typeof longest) =>
    (engine.pool.machine as NonNullable<typeof engine.pool.machine>).bytes
      .slice(levels[0], levels[0] + width * height * 4)
      .reduce((a, b) => a + b, 0);
  expect(sum(longest)).toBeLessThan(sum(shorter) - 1000);
});

it('takes sure faces by itself and offers the others', async () => {
  const engine = await make();
  const share = async (faces: Record<string, boolean>) => {
    const plane = await engine.guards.bytes({ photo, guards: guardsSchema.parse({ faces }) }, 'eyes');
    const half = (from: number) => plane.reduce((s, v, i) => s + (i % W >= from && i % W < from + 200 ? v : 0), 0);
    return [half(0) > 0, half(200) > 0];
  };
  expect(await share({})).toEqual([false, true]);
  expect(await share({ '1': true })).toEqual([true, true]);
  expect(await share({ '0': false })).toEqual([false, false]);
});

it('sets of faces that come and go are never taken for one another', async () => {
  const engine = await make();
  const alone = await make();
  // More sets than are kept, so that the memory of the first is used again.
  const sets: Record<string, boolean>[] = [{}, { '0': false }, { '1': true }, { '0': false, '1': true }, { '1': false }, {}, { '0': false }];
  for (const faces of sets) {
    const guards = guardsSchema.parse({ regions: { eyes: { amount: 1 }, subject: { amount: 0 } }, faces });
    const of = piece({ guards });
    const [one, fresh] = [await draw(engine, of), await draw(alone, { ...of, photo: { ...photo, key: JSON.stringify(faces) } })];
    for (const x of [100, 300]) expect(one(x, 80)).toBe(fresh(x, 80));
  }
});

it('a finder that fails leaves the drawing as it is without guards of people', async () => {
  let tries = 0;
  const engine = await make(true, async () => {
    tries++;
    throw new Error('no models');
  });
  expect((await draw(engine, piece()))(150, 160)).toBe(0);
  // Drawing does not try again and again; who asks for it does.
  await draw(engine, piece({ strength: 0.5 }));
  expect(tries).toBe(1);
  await expect(engine.guards.find(photo)).rejects.toThrow('no models');
  expect(tries).toBe(2);
});

it('the subject by strokes: two on it and two beside it part it from the ground', async () => {
  const engine = await make(true, async () => ({ version: 1, faces: [], person: null }));
  const hints = [
    {
      keep: true,
      points: [
        [0.33, 0.45],
        [0.42, 0.6],
      ],
    },
    {
      keep: false,
      points: [
        [0.05, 0.1],
        [0.9, 0.1],
      ],
    },
    {
      keep: false,
      points: [
        [0.8, 0.3],
        [0.8, 0.9],
      ],
    },
  ];
  const plane = await engine.guards.bytes({ photo, guards: guardsSchema.parse({ hints }) }, 'subject');
  let [both, either] = [0, 0];
  plane.forEach((v, i) => {
    const [got, want] = [v > 127, inside(i % W, Math.floor(i / W))];
    both += +(got && want);
    either += +(got || want);
  });
  expect(both / either).toBeGreaterThan(0.97);
});

it('what stands out is taken for the subject when that is asked for', async () => {
  const engine = await make(true, async () => ({ version: 1, faces: [], person: null }));
  const plane = await engine.guards.bytes({ photo, guards: guardsSchema.parse({ standsOut: true }) }, 'subject');
  const mean = (test: (x: number, y: number) => boolean) => {
    const values = [...plane].filter((_, i) => test(i % W, Math.floor(i / W)));
    return values.reduce((s, v) => s + v, 0) / values.length / 255;
  };
  expect(mean((x, y) => Math.hypot(x - 150, y - 160) < 55)).toBeGreaterThan(0.9);
  expect(mean((x) => x > 300)).toBeLessThan(0.1);
});

it('cuts the subject out and frees its rim of the old background', async () => {
  // A soft rim: half red, half green over some pixels.
  const soft = Uint8Array.from({ length: W * H * 4 }, (_, i) => {
    const [x, y] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W)];
    const a = Math.min(1, Math.max(0, (74 - Math.hypot(x - 150, y - 160)) / 8));
    return i % 4 === 3 ? 255 : Math.round([200, 40, 40][i % 4] * a + [40, 160, 70][i % 4] * (1 - a));
  });
  const engine: Engine = await nodeEngine({
    size: 2,
    find: async () => finding,
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, soft) }),
  });
  engines.push(engine);
  const coats = (clean: number) => [
    coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#000000' }, blend: 'normal' }),
    coatSchema.parse({ id: 'b', source: { kind: 'cutout', clean }, blend: 'normal' }),
  ];
  const region = { x: 0, y: 0, width: W, height: H };
  const of = (clean: number) => engine.draw({ piece: piece({ guards: undefined, coats: coats(clean) }), region, scale: 1 }, (p) => Buffer.from(p));
  const [cleaned, raw] = [await of(1), await of(0)];
  const green = (p: Buffer, x: number) => p[(160 * W + x) * 4 + 1];
  const red = (p: Buffer, x: number) => p[(160 * W + x) * 4];
  expect(red(cleaned, 150)).toBeGreaterThan(195);
  expect(red(cleaned, 300) + green(cleaned, 300)).toBeLessThan(4);
  // On the rim, green beyond what red skin would have (a fifth of the red) is the old background's.
  const spill = (p: Buffer) => [216, 218, 220, 222].reduce((s, x) => s + Math.max(0, green(p, x) - red(p, x) / 5), 0);
  expect(spill(cleaned)).toBeLessThan(spill(raw) * 0.5);
});

it('the subject of another picture is laid like the picture itself: covering, moved, or tiled', async () => {
  const engine = await make();
  const laid = (lay: object) => [
    coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#000000' }, blend: 'normal' }),
    coatSchema.parse({ id: 'b', source: { kind: 'cutout', file: 'other', width: W, height: H }, lay, blend: 'normal' }),
  ];
  const seen = await draw(engine, piece({ guards: undefined, coats: laid({ fit: 'cover', x: 0.25 }) }));
  // The disc at (150, 160) lies a quarter of the width further to the right.
  expect([seen(250, 160), seen(60, 160)]).toEqual([200, 0]);
  const tiled = await draw(engine, piece({ guards: undefined, coats: laid({ fit: 'tile', scale: 2 }) }));
  // One of its pixels is two u, two fifths of a pixel here: the disc's middle from the tile's, (−50, 10), is at (180, 154).
  expect(tiled(180, 154)).toBeGreaterThan(190);
  expect(tiled(225, 154)).toBeLessThan(10);
});

describe('a stroke that grows', () => {
  const points = (n: number) =>
    Array.from({ length: n }, (_, i): [number, number, number] => [0.5 + 0.4 * Math.sin(i * 0.07), 0.5 + 0.4 * Math.cos(i * 0.05), 1]);
  const all = points(600);
  const coats = (n: number, tips: object = {}): Piece['coats'] => {
    const strokes = [
      { does: 'put', size: 90, points: points(40) },
      { does: 'take', size: 120, strength: 0.6, flow: 0.5, ...tips, points: all.slice(0, 1) },
    ];
    const coat = black({
      mask: {
        start: 'all',
        parts: [
          { kind: 'ellipse', op: 'subtract' },
          { kind: 'strokes', strokes },
        ],
      },
    });
    // The same points in every step, as the brush keeps them: parsing would copy them, and each step would be another stroke.
    const [ellipse, part] = coat.mask.parts as unknown as [object, { strokes: object[] }];
    const grown = { ...part, strokes: [part.strokes[0], { ...part.strokes[1], points: all.slice(0, n) }] };
    return [{ ...coat, mask: { ...coat.mask, parts: [ellipse, grown] } } as Piece['coats'][number]];
  };
  it.each([
    ['plain', {}],
    ['with a ring', { ring: true }],
    ['with a flat tip that follows it', { tip: 'flat' }],
    ['cut from a material', { tip: 'cut', material: { id: 'brush.dry', seed: 2 } }],
  ])('%s is the same picture as one drawn at once, and shorter again after undoing', async (_name, tips) => {
    const engine = await make();
    const whole = async (on: Engine, list: Piece['coats']) => {
      const region = { x: 0, y: 0, width: W, height: H };
      return on.draw({ piece: piece({ guards: undefined, coats: list }), region, scale: 1, chosen: 'a' }, (p) => Buffer.from(p));
    };
    // The same points in every step, as the brush keeps them.
    for (const n of [1, 2, 30, 130, 131, 300]) await whole(engine, coats(n, tips));
    const grown = await whole(engine, coats(600, tips));
    const back = await whole(engine, coats(200, tips));
    const [once, shorter] = await Promise.all([make(), make(false)].map(async (e, i) => whole(await e, coats(i === 0 ? 600 : 200, tips))));
    const most = (a: Buffer, b: Buffer) => a.reduce((m, v, i) => Math.max(m, Math.abs(v - b[i])), 0);
    expect(most(grown, once)).toBeLessThanOrEqual(1);
    expect(most(back, shorter)).toBeLessThanOrEqual(1);
  });

  it('cut from a material has the same marks however the picture is tiled', async () => {
    const engine = await make(false);
    const list = coats(600, { tip: 'cut', material: { id: 'brush.dry', seed: 2 } });
    const tiled = (tile: number) =>
      engine.draw({ piece: piece({ guards: undefined, coats: list }), region: { x: 0, y: 0, width: W, height: H }, scale: 1, tile }, (p) =>
        Buffer.from(p),
      );
    const [fine, coarse] = [await tiled(50), await tiled(200)];
    // Places within a tile are rounded to 32 bits.
    expect(fine.reduce((most, v, i) => Math.max(most, Math.abs(v - coarse[i])), 0)).toBeLessThanOrEqual(1);
  });
});

describe('a mask that moves with its coat’s lay', () => {
  const lay = (x: number) => ({ fit: 'cover', scale: 1, x, y: 0 });
  const laid = (anchor: string, x: number) =>
    coatSchema.parse({
      id: 'a',
      source: { kind: 'material', id: 'paper.cold-press', seed: 1 },
      blend: 'normal',
      lay: { ...lay(x), scale: 3 },
      mask: {
        start: 'none',
        anchor,
        base: { ...lay(0), scale: 3 },
        parts: [{ kind: 'ellipse', op: 'add', cx: 0.3, cy: 0.5, rx: 0.1, ry: 0.1, feather: 0 }],
      },
    });
  const seen = async (coat: Piece['coats'][number]) => {
    const engine = await make();
    const region = { x: 0, y: 0, width: W, height: H };
    const pixels = await engine.draw(
      { piece: piece({ guards: undefined, coats: [coat] }), region, scale: 1, view: { kind: 'mask', coat: 'a' } },
      (p) => Buffer.from(p),
    );
    return [0.3, 0.5].map((x) => pixels[(150 * W + x * W) * 4]);
  };
  it('lies where the lay has taken it; on the photo it stays', async () => {
    expect(await seen(laid('photo', 0.2))).toEqual([255, 0]);
    expect(await seen(laid('lay', 0.2))).toEqual([0, 255]);
    expect(await seen(laid('lay', 0))).toEqual([255, 0]);
  });
});

it('a coat can have another’s mask, and follows it; one that leads back to itself is nothing', async () => {
  const engine = await make();
  const mask = { start: 'none', parts: [{ kind: 'ellipse', op: 'add', cx: 0.5, cy: 0.5, rx: 0.2, ry: 0.2 }] };
  const hidden = coatSchema.parse({ id: 'b', source: { kind: 'photo' }, visible: false, mask });
  const linked = (to: string) => black({ mask: { start: 'none', parts: [{ kind: 'coat', coat: to, op: 'add' }] } });
  const shown = await draw(engine, piece({ guards: undefined, coats: [hidden, linked('b')] }));
  expect([shown(200, 150), shown(20, 20)]).toEqual([0, 40]);
  expect((await draw(engine, piece({ guards: undefined, coats: [linked('a')] })))(200, 150)).toBe(200);
});
