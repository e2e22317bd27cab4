import { toBase64 } from '../core/guards/bytes';
import { guardsSchema } from '../core/guards/schema';
import { coatSchema, type Piece } from '../core/piece/schema';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(60_000);

const [W, H] = [400, 300];
const inside = (x: number, y: number) => Math.hypot(x - 150, y - 160) < 70;
const bytes = Uint8Array.from({ length: W * H * 4 }, (_, i) => {
  const [x, y] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W)];
  return inside(x, y) ? [200, 40, 40, 255][i % 4] : [40, 160 + (x % 40), 70, 255][i % 4];
});
const map = Uint8Array.from({ length: 100 * 75 }, (_, i) => (inside((i % 100) * 4 + 2, Math.floor(i / 100) * 4 + 2) ? 255 : 0));

const engines: Engine[] = [];
async function make(): Promise<Engine> {
  const engine: Engine = await nodeEngine({
    size: 2,
    find: async () => ({ version: 1, faces: [], person: { width: 100, height: 75, map: toBase64(map) } }),
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, bytes) }),
  });
  engines.push(engine);
  return engine;
}
afterAll(() => engines.forEach((e) => e.pool.close()));

type Drawn = Pick<Piece, 'coats' | 'strength' | 'photo' | 'guards'>;
const stroke = (points: number[][]) => ({ does: 'put', size: 260, hardness: 1, strength: 1, flow: 1, points });
const ground = coatSchema.parse({ id: 'ground', source: { kind: 'colour', colour: '#204060' } });
const piece = (coats: Piece['coats'], guards: object): Drawn => ({
  photo: { key: 'k', name: 'k.png', width: W, height: H },
  strength: 1,
  coats,
  guards: guardsSchema.parse({ regions: {}, ...guards }),
});
const draw = (engine: Engine, of: Drawn, options: { chosen?: string; quick?: boolean } = {}) =>
  engine.draw({ piece: of, region: { x: 0, y: 0, width: W, height: H }, scale: 1, chosen: options.chosen }, (p) => Buffer.from(p), {
    quick: options.quick,
  });
const apart = (a: Buffer, b: Buffer) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i])), 0);

it.each(['above', 'itself'])('what is kept of a cut-out follows the guards that it is cut by: %s', async (which) => {
  const engine = await make();
  const cut = coatSchema.parse({ id: 'cut', source: { kind: 'cutout' }, guards: 0, treatments: [{ kind: 'tone', brightness: 0.2 }] });
  const top = coatSchema.parse({ id: 'top', source: { kind: 'colour', colour: '#ffffff' }, strength: 0.1, guards: 0 });
  const chosen = which === 'itself' ? 'cut' : 'top';
  const coats = [ground, cut, top];
  const painted = { regions: { subject: { strokes: [stroke([[0.85, 0.3, 1]])] } } };
  for (const guards of [{}, painted, {}]) {
    const of = piece(coats, guards);
    await draw(engine, of, { chosen });
    const kept = await draw(engine, of, { chosen });
    expect(apart(kept, await draw(await make(), of))).toBeLessThanOrEqual(1);
  }
});

it('what is kept below a coat is not the quick drawing of a mask’s material', async () => {
  const engine = await make();
  const mask = { start: 'none', parts: [{ kind: 'material', id: 'wear.splatter', seed: 3, op: 'add', scale: 1 }] };
  const under = coatSchema.parse({ id: 'u', source: { kind: 'colour', colour: '#000000' }, mask, guards: 0 });
  const top = coatSchema.parse({ id: 't', source: { kind: 'colour', colour: '#ffffff' }, strength: 0.1, guards: 0 });
  const of = piece([under, top], {});
  await draw(engine, of, { chosen: 't', quick: true });
  await draw(engine, of, { chosen: 't', quick: true });
  const fine = await draw(engine, of, { chosen: 't' });
  expect(apart(fine, await draw(await make(), of))).toBeLessThanOrEqual(1);
});

it('a backdrop follows the mask that it shares with the coat above it', async () => {
  const engine = await make();
  const blank = piece([], {});
  const shared = { start: 'none', parts: [{ kind: 'coat', coat: 'top', op: 'add' }] };
  const under = coatSchema.parse({ id: 'under', source: { kind: 'colour', colour: '#ffffff' }, mask: shared, guards: 0 });
  for (const cx of [0.2, 0.5, 0.8]) {
    const mask = { start: 'none', parts: [{ kind: 'ellipse', op: 'add', cx, cy: 0.5, rx: 0.15, ry: 0.2 }] };
    const top = coatSchema.parse({ id: 'top', source: { kind: 'colour', colour: '#000000' }, strength: 0.2, guards: 0, mask });
    const of = { ...blank, coats: [ground, under, top] };
    await draw(engine, of, { chosen: 'top' });
    expect(apart(await draw(engine, of, { chosen: 'top' }), await draw(await make(), of))).toBeLessThanOrEqual(1);
  }
});

it.each([undefined, 'lit'])('a survey of what lies below follows the guards of the coats there (chosen: %s)', async (chosen) => {
  const engine = await make();
  const dark = coatSchema.parse({ id: 'dark', source: { kind: 'colour', colour: '#101010' }, guards: 1 });
  const lit = coatSchema.parse({ id: 'lit', source: { kind: 'below' }, guards: 0, treatments: [{ kind: 'even', amount: 1 }] });
  for (const amount of [0, 1, 0.4]) {
    const of = piece([dark, lit], { regions: { subject: { amount } } });
    expect(apart(await draw(engine, of, { chosen }), await draw(await make(), of))).toBeLessThanOrEqual(1);
  }
});

it('surveys with other surroundings are other surveys', async () => {
  const engine = await make();
  const blank = piece([], {});
  for (const reach of [10, 150, 40]) {
    const toned = coatSchema.parse({
      id: 'toned',
      source: { kind: 'photo' },
      guards: 0,
      treatments: [{ kind: 'local-tone', flatten: 0.8, detail: 1, reach }],
    });
    const of = { ...blank, coats: [toned] };
    expect(apart(await draw(engine, of), await draw(await make(), of))).toBeLessThanOrEqual(1);
  }
});

it('what a coat is held back by follows amounts and what is painted on regions', async () => {
  const engine = await make();
  const under = coatSchema.parse({ id: 'under', source: { kind: 'colour', colour: '#ffffff' }, guards: 1 });
  const top = coatSchema.parse({ id: 'top', source: { kind: 'colour', colour: '#000000' }, strength: 0.2, guards: 0 });
  for (const guards of [
    { regions: { subject: { amount: 1 } } },
    { regions: { subject: { amount: 0.2 } } },
    { regions: { painted: { strokes: [stroke([[0.2, 0.3, 1]])] } } },
  ]) {
    const of = piece([under, top], guards);
    await draw(engine, of, { chosen: 'top' });
    expect(apart(await draw(engine, of, { chosen: 'top' }), await draw(await make(), of))).toBeLessThanOrEqual(1);
  }
});
