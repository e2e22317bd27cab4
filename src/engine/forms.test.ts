import sharp from 'sharp';
import { toBase64 } from '../core/guards/bytes';
import type { Finding } from '../core/guards/finding';
import { guardsSchema } from '../core/guards/schema';
import { onSkin } from '../core/piece/onSkin';
import { coatSchema, type Coat } from '../core/piece/schema';
import { planReady } from '../core/ready/plan';
import { readySchema } from '../core/ready/schema';
import { KEEPER, keeperFace } from '@/testing/keeper';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(120_000);

// The made-up photograph of the keeper, and a level grey one of the same size without anybody.
const { width, height } = KEEPER;
const map = Uint8Array.from({ length: 60 * 75 }, (_, i) => (Math.hypot((i % 60) - 28, Math.floor(i / 60) - 36) < 26 ? 255 : 0));
const keeper: Finding = { version: 1, faces: [keeperFace()], person: { width: 60, height: 75, map: toBase64(map) } };
let engine: Engine;
let looked = 0;
beforeAll(async () => {
  const pixels = new Uint8Array(await sharp('demo/photos/keeper.jpg').ensureAlpha().raw().toBuffer());
  const grey = new Uint8Array(pixels.length).fill(128).map((v, i) => (i % 4 === 3 ? 255 : v));
  engine = await nodeEngine({
    size: 2,
    find: async (key) => (looked++, key === 'keeper' ? keeper : { version: 1, faces: [], person: null }),
    decode: async (key) => ({ width, height, place: async (at) => engine.pool.write(at, key === 'keeper' ? pixels : grey) }),
  });
});
afterAll(() => engine.pool.close());

const photo = (key: string) => ({ key, name: key, width, height });
const piece = (key: string, coats: Coat[], more: object = {}) => ({ photo: photo(key), coats, strength: 1, ...more });
const draw = (drawn: ReturnType<typeof piece>, quick = false) =>
  engine.draw({ piece: drawn, region: { x: 0, y: 0, width: 300, height: 375 }, scale: 0.25 }, (p) => p.slice(), { quick });
/** Mean difference of two drawings, in levels, about a place of the photo (fractions). */
function apart(a: Uint8Array, b: Uint8Array, x: number, y: number, reach = 4): number {
  let [sum, n] = [0, 0];
  for (let j = -reach; j <= reach; j++)
    for (let i = -reach; i <= reach; i++)
      for (let c = 0; c < 3; c++, n++) {
        const at = ((Math.round(y * 375) + j) * 300 + Math.round(x * 300) + i) * 4 + c;
        sum += Math.abs(a[at] - b[at]);
      }
  return sum / n;
}
/** Where a point of the keeper's mesh lies, in fractions. */
const at = (i: number) => [(keeperFace().mesh[3 * i] * height) / 32768 / width, keeperFace().mesh[3 * i + 1] / 32768] as const;

describe('what follows the form of a face', () => {
  it('is worked out once for a photo in a frame, and again for another frame', async () => {
    const frame = (ready?: object) => planReady(photo('keeper'), ready && readySchema.parse(ready)).framing;
    const whole = await engine.forms.fields({ photo: photo('keeper'), guards: undefined }, frame());
    expect(whole.fields).toHaveLength(1);
    expect(await engine.forms.fields({ photo: photo('keeper'), guards: undefined }, frame())).toEqual(whole);
    const flipped = await engine.forms.fields({ photo: photo('keeper'), guards: undefined }, frame({ flip: true }));
    expect(flipped.key).not.toBe(whole.key);
    const [a, b] = [whole.fields[0], flipped.fields[0]];
    expect(a.left + b.left + 255 * a.cell).toBeCloseTo(width, 0);
    expect((await engine.forms.fields({ photo: photo('grey'), guards: undefined }, frame())).fields).toEqual([]);
    const left = guardsSchema.parse({ faces: { 0: false } });
    expect((await engine.forms.fields({ photo: photo('keeper'), guards: left }, frame())).fields).toEqual([]);
  });
  it('shifts a texture on the face and nothing far from it; without a face nothing anywhere', async () => {
    const coat = (treatments: object[]) =>
      coatSchema.parse({ id: 'a', source: { kind: 'material', id: 'masonry.brick' }, lay: { fit: 'tile', scale: 0.15 }, guards: 0, treatments });
    const follow = [{ kind: 'drape', map: 'form', form: 1 }];
    const [plain, wrapped] = [await draw(piece('keeper', [coat([])])), await draw(piece('keeper', [coat(follow)]))];
    expect(apart(plain, wrapped, ...at(117))).toBeGreaterThan(6);
    expect(apart(plain, wrapped, 0.06, 0.06)).toBeLessThan(0.5);
    const [bare, nobody] = [await draw(piece('grey', [coat([])])), await draw(piece('grey', [coat(follow)]))];
    expect(bare.some((v, i) => v !== nobody[i])).toBe(false);
  });
});

it('skin grain in one tap lies on the skin alone and leaves eyes and what is not skin', async () => {
  const coats = onSkin[0].coats(() => 'a', { direction: 300, elevation: 40 });
  const strong = coats.map((one) => ({
    ...one,
    treatments: one.treatments.map((step) => (step.kind === 'relief' ? { ...step, depth: 0.4 } : step)),
  }));
  const guards = guardsSchema.parse({});
  const [before, after] = [await draw(piece('keeper', [], { guards })), await draw(piece('keeper', strong, { guards }))];
  expect(apart(before, after, ...at(50))).toBeGreaterThan(2);
  const eye = [0, 1].map((c) => (at(33)[c] + at(133)[c]) / 2) as [number, number];
  expect(apart(before, after, ...eye, 2)).toBeLessThan(0.6);
  expect(apart(before, after, 0.06, 0.06)).toBeLessThan(0.1);
});

it('faces of another picture that is cut out are guarded where they lie', async () => {
  const cut = coatSchema.parse({ id: 'k', source: { kind: 'cutout', file: 'keeper', width, height }, lay: { x: 0.1 }, blend: 'normal', guards: 0 });
  const red = coatSchema.parse({ id: 'r', source: { kind: 'colour', colour: '#c01010' }, blend: 'normal', strength: 1, guards: 1 });
  const guards = guardsSchema.parse({ regions: { subject: { amount: 0 } } });
  const [under, over] = [await draw(piece('grey', [cut], { guards })), await draw(piece('grey', [cut, red], { guards }))];
  const eye = [(at(33)[0] + at(133)[0]) / 2 + 0.1, (at(33)[1] + at(133)[1]) / 2] as const;
  expect(apart(under, over, ...eye, 1)).toBeLessThan(12);
  expect(apart(under, over, at(50)[0] + 0.1, at(50)[1], 2)).toBeGreaterThan(40);
  expect(apart(under, over, 0.03, 0.5)).toBeGreaterThan(40);
});

it('a cut-out of another picture is corrected by strokes in fractions of that picture', async () => {
  const coat = (subject?: object) =>
    coatSchema.parse({ id: 'k', source: { kind: 'cutout', file: 'keeper', width, height, subject }, blend: 'normal', guards: 0 });
  const stroke = {
    does: 'take',
    size: 300,
    strength: 1,
    flow: 1,
    hardness: 0.5,
    points: [
      [0.5, 0.5, 1],
      [0.52, 0.5, 1],
    ],
  };
  const [whole, erased, grey] = [
    await draw(piece('grey', [coat()])),
    await draw(piece('grey', [coat({ strokes: [stroke] })])),
    await draw(piece('grey', [])),
  ];
  expect(apart(whole, grey, 0.5, 0.5, 2)).toBeGreaterThan(20);
  expect(apart(erased, grey, 0.5, 0.5, 2)).toBeLessThan(4);
});

it('a quick drawing does not wait for faces: it goes without, and the next one has them', async () => {
  looked = 0;
  const coats = onSkin[0].coats(() => 'a', { direction: 300, elevation: 40 });
  await expect(draw(piece('other', coats), true)).resolves.toBeDefined();
  await engine.guards.settled(photo('other'));
  expect(looked).toBe(1);
});
