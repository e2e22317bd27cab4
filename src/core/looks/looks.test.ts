import { GRID, MESH_POINTS, type Finding } from '../guards/finding';
import { toBase64 } from '../guards/bytes';
import { materials, materialById } from '../materials';
import { coatsOf, goesAround, layRecipe, withoutPainting, hasPainting } from '../piece/recipe';
import { pieceSchema, recipeSchema, type Coat } from '../piece/schema';
import { neutralReady } from '../ready/schema';
import { aroundSitter, sitterOf } from './around';
import { shippedLooks } from '.';

const photo = { width: 1200, height: 1500 };
const face = (cx: number, cy: number, hx: number, hy: number): Finding['faces'][number] => ({
  score: 0.9,
  mesh: Array.from({ length: MESH_POINTS * 3 }, (_, i) => {
    const angle = (Math.floor(i / 3) / MESH_POINTS) * 2 * Math.PI;
    return Math.round(([cx + hx * Math.cos(angle), cy + hy * Math.sin(angle), 0][i % 3] / 1500) * GRID);
  }),
});
const ellipsesOf = (coats: readonly Coat[]) =>
  coats.flatMap((c) => c.mask.parts.filter((p) => p.kind === 'ellipse')) as unknown as {
    cx: number;
    cy: number;
    rx: number;
    ry: number;
    around?: string;
  }[];
const stained = recipeSchema.parse(shippedLooks.find((l) => l.id === 'stained-sheet')!.recipe);
let next = 0;
const coats = coatsOf(stained, () => `c${++next}`);

it('forty-one looks ship, each a valid recipe of materials that are there', () => {
  expect(shippedLooks).toHaveLength(41);
  expect(new Set(shippedLooks.map((l) => l.id)).size).toBe(41);
  for (const { recipe } of shippedLooks) {
    const whole = recipeSchema.parse(recipe);
    expect(whole.coats.length).toBeGreaterThanOrEqual(3);
    expect(whole.guards?.regions.eyes?.amount).toBe(1);
    for (const { source } of whole.coats) {
      const { kind, id, params = {} } = source as unknown as { kind: string; id: string; params?: object };
      if (kind === 'material') expect(materialById(id).params.strict().safeParse(params).success).toBe(true);
    }
  }
  expect(materials.length).toBe(85);
});

describe('masks about the person', () => {
  it('lie about the found face as they lay about the sample’s', () => {
    const [vignette] = [ellipsesOf(coats).find((e) => e.around === undefined)!];
    const asSample = ellipsesOf(aroundSitter(coats, { version: 1, faces: [face(600, 720, 270, 312)], person: null }, photo));
    expect(asSample[0]).toMatchObject({
      cx: expect.closeTo(0.5, 3),
      cy: expect.closeTo(0.48, 3),
      rx: expect.closeTo(0.42, 3),
      ry: expect.closeTo(0.5, 3),
    });
    const small = ellipsesOf(aroundSitter(coats, { version: 1, faces: [face(300, 400, 135, 156)], person: null }, photo));
    expect(small[0]).toMatchObject({
      cx: expect.closeTo(0.25, 3),
      cy: expect.closeTo(0.2667, 3),
      rx: expect.closeTo(0.21, 3),
      ry: expect.closeTo(0.25, 3),
    });
    expect(small.every((e) => e.around === undefined)).toBe(true);
    // A vignette belongs to the frame.
    expect(small).toContainEqual(vignette);
  });

  it('take in all sure faces, and leave out one that is not', () => {
    const unsure = { ...face(1100, 1400, 50, 50), score: 0.4 };
    const box = sitterOf({ version: 1, faces: [face(300, 400, 100, 100), face(800, 500, 100, 100), unsure], person: null }, photo)!;
    Object.entries({ left: 200, top: 300, right: 900, bottom: 600 }).forEach(([side, at]) =>
      expect(Math.abs(box[side as keyof typeof box] - at)).toBeLessThan(2),
    );
  });

  it('follow a person without a face, and a cropped frame; nobody found, they stay', () => {
    const map = new Uint8Array(120 * 150);
    for (let y = 30; y < 150; y++) map.fill(255, y * 120 + 40, y * 120 + 80);
    const finding: Finding = { version: 1, faces: [], person: { width: 120, height: 150, map: toBase64(map) } };
    const box = sitterOf(finding, photo)!;
    expect((box.left + box.right) / 2).toBeCloseTo(600);
    expect((box.top + box.bottom) / 2).toBeCloseTo(900);
    expect(box.right - box.left).toBeCloseTo(400 * 0.45);
    const cropped = { ...neutralReady, crop: { ...neutralReady.crop, x: 0.5, w: 0.5 } };
    expect(ellipsesOf(aroundSitter(coats, finding, photo, cropped))[0].cx).toBeCloseTo(0, 2);
    const empty: Finding = { version: 1, faces: [], person: null };
    expect(ellipsesOf(aroundSitter(coats, empty, photo))[0]).toMatchObject({ cx: 0.5, cy: 0.48, rx: 0.42, ry: 0.5 });
  });

  it('are placed when the look is laid, on the same points in the page and on the command line', () => {
    expect(goesAround(stained)).toBe(true);
    const piece = pieceSchema.parse({ dermatex: 1, id: 'p', name: 'p', created: 0, changed: 0, photo: { key: 'k', name: 'n', ...photo } });
    const laid = layRecipe(stained, coats, { version: 1, faces: [face(300, 400, 135, 156)], person: null })(piece);
    expect(ellipsesOf(laid.coats)[0].cx).toBeCloseTo(0.25, 3);
    expect(goesAround(laid)).toBe(false);
  });
});

it('what was painted on a photo stays with it: masks of nothing else show all of their coat', () => {
  const stroke = { kind: 'strokes', strokes: [{ points: [[0.1, 0.1, 1]], size: 20 }] };
  const painted = recipeSchema.parse({
    dermatex: 1,
    coats: [
      { source: { kind: 'below' }, mask: { start: 'none', parts: [stroke] } },
      { source: { kind: 'below' }, mask: { start: 'none', parts: [{ kind: 'ellipse', op: 'add' }, stroke] } },
    ],
  });
  const piece = { coats: coatsOf(painted, () => `s${++next}`) };
  expect(hasPainting(piece)).toBe(true);
  const bare = withoutPainting(piece);
  expect(hasPainting(bare)).toBe(false);
  expect(bare.coats[0].mask).toMatchObject({ start: 'all', parts: [] });
  expect(bare.coats[1].mask.start).toBe('none');
  expect(bare.coats[1].mask.parts).toHaveLength(1);
});
