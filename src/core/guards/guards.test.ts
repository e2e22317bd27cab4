import { pieceSchema, recipeSchema } from '../piece/schema';
import { coatsOf, parseRecipe, recipeOf } from '../piece/recipe';
import { fromBase64, toBase64 } from './bytes';
import { faceWidth, findingSchema, GRID, MESH_POINTS, meshPoint, type Face } from './finding';
import { numbers } from '@/testing/machine';
import { earOutlines, hairBand, headAxes, hullOf } from './outlines';
import { amountsOf, guardsSchema, regions, settingsOf } from './schema';

/** A mesh of an upright head turned by `yaw` (the viewer's right side nearer when positive): a cylinder of radius 100 about (500, 400). */
function head(yaw: number): Face {
  const mesh = new Array(MESH_POINTS * 3).fill(0);
  const put = (i: number, angle: number, y: number) => {
    const a = angle + yaw;
    [500 + 100 * Math.sin(a), y, -100 * Math.cos(a)].forEach((v, c) => (mesh[3 * i + c] = Math.round((v / 1000) * GRID)));
  };
  for (let i = 0; i < MESH_POINTS; i++) put(i, 0, 400);
  put(234, -Math.PI / 2, 400);
  put(454, Math.PI / 2, 400);
  put(10, 0, 300);
  put(152, 0, 520);
  put(168, 0, 380);
  return { score: 1, mesh };
}

it('a face’s hull is convex and holds all of its mesh', () => {
  const random = numbers(5);
  const face = { score: 1, mesh: Array.from({ length: MESH_POINTS * 3 }, () => Math.round(random() * GRID)) };
  const hull = hullOf(face, 100);
  const side = (a: number[], b: number[], p: number[]) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
  for (const [i, a] of hull.entries()) {
    const b = hull[(i + 1) % hull.length];
    for (let p = 0; p < MESH_POINTS; p += 7) expect(side(a, b, meshPoint(face, p, 100))).toBeGreaterThanOrEqual(-1e-9);
  }
});

it('the trade’s amounts hold until others are set (common practice)', () => {
  const amounts = amountsOf({ regions: {} }, undefined);
  expect(amounts).toEqual({
    eyes: 1,
    teeth: 1,
    nostrils: 1,
    lips: 0.65,
    brows: 0.5,
    ears: 0.5,
    unfocused: 0,
    subject: 0.3,
    skin: 0,
    body: 0,
    hair: 0,
    irises: 0,
    catchlights: 0,
    detail: 0,
    accents: 0,
    kept: 1,
    painted: 1,
  });
  expect(amountsOf({ regions: { lips: { amount: 0.2 } } }, { eyes: 0.4 })).toMatchObject({ lips: 0.2, eyes: 0.4, brows: 0.5 });
  expect(settingsOf({ regions: { lips: { feather: 4 } } }, 'lips')).toMatchObject({ amount: 0.65, feather: 4, expand: 0, strokes: [] });
  expect(regions.map((r) => r.id)).toContain('painted');
  // What is read from a file keeps what it leaves out open: lips that are only feathered stay at 65 %.
  const read = guardsSchema.parse({ regions: { lips: { feather: 4 } } });
  expect(read.regions.lips).toEqual({ feather: 4 });
  expect(amountsOf(read, undefined).lips).toBe(0.65);
});

it('bytes go through base64 and back (RFC 4648: "foobar" is Zm9vYmFy)', () => {
  expect(toBase64(new TextEncoder().encode('foobar'))).toBe('Zm9vYmFy');
  const bytes = Uint8Array.from({ length: 20_000 }, (_, i) => (i * 7) % 256);
  expect(Buffer.compare(Buffer.from(fromBase64(toBase64(bytes))), Buffer.from(bytes))).toBe(0);
});

it('a finding whose map does not fit its size is refused', () => {
  const person = { width: 4, height: 3, map: toBase64(new Uint8Array(12)) };
  expect(findingSchema.safeParse({ version: 1, faces: [], person }).success).toBe(true);
  expect(findingSchema.safeParse({ version: 1, faces: [], person: { ...person, width: 40 } }).success).toBe(false);
  expect(findingSchema.safeParse({ version: 1, faces: [{ score: 2, mesh: [] }], person: null }).success).toBe(false);
});

describe('a head', () => {
  it('has the width of its mesh in space, however it is turned', () => {
    for (const yaw of [0, 0.5, 1]) expect(faceWidth(head(yaw), 1000)).toBeCloseTo(200, 0);
    expect(meshPoint(head(0), 454, 500)[0]).toBeCloseTo(300, 0);
  });
  it('has axes that follow its turn', () => {
    const { across, down, back } = headAxes(head(0));
    expect(across[0]).toBeCloseTo(1, 3);
    expect(down[1]).toBeCloseTo(1, 3);
    expect(back[2]).toBeCloseTo(1, 3);
    expect(Math.abs(headAxes(head(0.6)).across[2])).toBeCloseTo(Math.sin(0.6), 2);
  });
  it('shows both ears from the front, one when it is turned away', () => {
    const middle = (outline: [number, number][]) => outline.reduce((s, [x]) => s + x / outline.length, 0);
    const front = earOutlines(head(0), 1000).map(middle);
    expect(front).toHaveLength(2);
    expect(front[0]).toBeLessThan(400);
    expect(front[1]).toBeGreaterThan(600);
    for (const yaw of [0.7, -0.7]) {
      const turned = earOutlines(head(yaw), 1000).map(middle);
      expect(turned).toHaveLength(1);
      // The one on the side that has come to the front.
      expect(Math.sign(turned[0] - 500)).toBe(yaw > 0 ? -1 : 1);
    }
  });
  it('has its hair begin outside the oval', () => {
    const inner = hairBand(head(0), 1000, 0);
    hairBand(head(0), 1000, 0.3).forEach(([x, y], i) => {
      const far = (p: readonly [number, number]) => Math.hypot(p[0] - 500, p[1] - 380);
      expect(far([x, y])).toBeGreaterThanOrEqual(far(inner[i]));
    });
  });
});

describe('in a recipe', () => {
  const piece = pieceSchema.parse({
    dermatex: 1,
    id: 'p',
    name: 'Guarded',
    created: 1,
    changed: 1,
    photo: { key: 'k', name: 'k.png', width: 100, height: 80 },
    guards: guardsSchema.parse({
      regions: { lips: { amount: 0.4, strokes: [{ points: [[0.5, 0.5, 1]] }] } },
      faces: { '0': false },
      hints: [{ keep: true, points: [[0.2, 0.2]] }],
    }),
    coats: [
      { id: 'one', source: { kind: 'photo' }, guards: 0.5, guardAmounts: { eyes: 0.3 } },
      {
        id: 'two',
        source: { kind: 'cutout', file: 'key' },
        mask: { start: 'none', density: 0.5, parts: [{ kind: 'coat', coat: 'one', op: 'add' }] },
      },
    ],
  });

  it('guards say how regions are kept, and nothing of this photo', () => {
    const recipe = recipeOf(piece, () => 'cloud.png');
    expect(recipe.guards).toEqual(guardsSchema.parse({ regions: { lips: { amount: 0.4 } } }));
    expect(recipe.coats[0]).toMatchObject({ guards: 0.5, guardAmounts: { eyes: 0.3 } });
    expect(recipe.coats[1].source).toMatchObject({ kind: 'cutout', file: 'cloud.png' });
    expect(recipeSchema.safeParse(JSON.parse(JSON.stringify(recipe))).success).toBe(true);
  });

  it('a mask that is another coat’s finds it again under its new name', () => {
    const recipe = parseRecipe(JSON.stringify(recipeOf(piece)));
    expect(recipe.coats.map((c) => c.id)).toEqual(['one', undefined]);
    let n = 0;
    const coats = coatsOf(recipe, () => `new${++n}`);
    expect(coats.map((c) => c.id)).toEqual(['new1', 'new2']);
    expect(coats[1].mask.parts[0].coat).toBe('new1');
    expect(coats[1].mask.density).toBe(0.5);
  });

  it('a recipe of the first shape is read as it was', () => {
    const text = JSON.stringify({
      dermatex: 1,
      name: 'Old',
      coats: [
        {
          source: { kind: 'material', id: 'paper.cold-press', seed: 7, params: {} },
          mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.4, rx: 0.2, ry: 0.3, turn: 0, feather: 1, density: 0.8 }] },
          guards: 1,
        },
      ],
    });
    const recipe = parseRecipe(text);
    expect(recipe.guards).toBeUndefined();
    expect(recipe.coats[0].mask.parts[0]).toMatchObject({ shape: 0, active: true, invert: false, density: 0.8 });
    expect(() => parseRecipe(text.replace('"ellipse"', '"oval"'))).toThrow(RangeError);
  });
});
