import { snapTurn } from '../lay/laying';
import { ellipseSchema } from '../mask/parts/ellipse';
import { strokeSchema } from '../strokes/schema';
import { DAB, dabsOf } from '../strokes/dabs';
import { controlsOf } from '../schema';
import { fitScale, layMap, laySchema } from '../lay/lay';
import { readySchema } from '../ready/schema';
import { treatments } from '../treatments';
import * as edits from './edits';
import * as stacking from './stacking';
import { coatTitle } from './naming';
import { setReady } from './rebase';
import { coatsOf, layRecipe, parseRecipe, recipeOf } from './recipe';
import { coatSchema, pieceSchema, type Piece } from './schema';

const piece: Piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'Test',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k.jpg', width: 3000, height: 2000 },
  coats: [],
});
const stacked = ['paper.cold-press', 'cracks.craquelure', 'cloth.linen'].reduce(
  (p, id, i) => stacking.addCoat(edits.newCoat(`c${i}`, { kind: 'material', id, seed: 1, params: {} }), i === 0 ? null : `c${i - 1}`)(p),
  piece,
);
const ids = (p: Piece) => p.coats.map((c) => c.id).join('');

describe('coats', () => {
  it('a coat of what is already there begins in its own place, others as a texture', () => {
    expect(edits.newCoat('a', { kind: 'below' })).toMatchObject({ blend: 'normal', strength: 1 });
    expect(edits.newCoat('a', { kind: 'photo' })).toMatchObject({ blend: 'normal', strength: 1 });
    expect(edits.newCoat('a', { kind: 'picture', file: 'f' })).toMatchObject({ blend: 'multiply', strength: 0.6 });
  });
  it('one that corrects is not held back by guards, one that is laid over the photo is', () => {
    const guardsOf = (source: edits.SourceInput) => edits.newCoat('a', source).guards;
    for (const kind of ['below', 'photo', 'colour', 'gradient', 'grain']) expect([kind, guardsOf({ kind })]).toEqual([kind, 0]);
    expect(guardsOf({ kind: 'material', id: 'paper.aged', seed: 1, params: {} })).toBe(1);
    expect(guardsOf({ kind: 'picture', file: 'f' })).toBe(1);
    // What a piece says stays: one from before keeps its own.
    expect(coatSchema.parse({ id: 'old', source: { kind: 'below' } }).guards).toBe(1);
  });
  it('a new one lies directly above the chosen one, with the mode and strength its material suggests', () => {
    const p = stacking.addCoat(edits.newCoat('n', { kind: 'material', id: 'wear.film', seed: 1, params: {} }), 'c0')(stacked);
    expect(ids(p)).toBe('c0nc1c2');
    expect(p.coats[1]).toMatchObject({ blend: 'screen', strength: 0.9, visible: true });
  });
  it('moves to a place, to the top and to the bottom, and stays within the stack', () => {
    expect(ids(stacking.moveCoat('c0', 2)(stacked))).toBe('c1c2c0');
    expect(ids(stacking.moveCoat('c2', -5)(stacked))).toBe('c2c0c1');
    expect(stacking.moveCoat('c1', 1)(stacked)).toBe(stacked);
  });
  it('duplicates above itself and removes', () => {
    expect(ids(stacking.duplicateCoat('c1', () => 'x')(stacked))).toBe('c0c1xc2');
    expect(ids(stacking.removeCoat('c1')(stacked))).toBe('c0c2');
  });
  it('a coat that is still as its material began takes the look of the other with it', () => {
    const fresh = { ...stacked, coats: [edits.newCoat('n', { kind: 'material', id: 'cracks.craquelure', seed: 1 })] };
    const [coat] = edits.exchangeSource('n', { kind: 'material', id: 'cloth.linen', seed: 1, params: {} })(fresh).coats;
    expect(coat).toEqual(edits.newCoat('n', { kind: 'material', id: 'cloth.linen', seed: 1 }));
    const eased = edits.changeCoat('n', () => ({ strength: 0.5 }))(fresh);
    const [kept] = edits.exchangeSource('n', { kind: 'material', id: 'cloth.linen', seed: 1, params: {} })(eased).coats;
    expect(kept).toMatchObject({ blend: 'hard-light', strength: 0.5, treatments: eased.coats[0].treatments });
  });
  it('exchanges the material and keeps everything else', () => {
    const dialled = edits.setLay('c1', { turn: 45 })(edits.setTreatment('c1', 'tone', { brightness: 0.2 })(stacked));
    const p = edits.exchangeSource('c1', { kind: 'material', id: 'masonry.brick', seed: 2, params: {} })(dialled);
    expect(p.coats[1]).toEqual({ ...dialled.coats[1], source: { kind: 'material', id: 'masonry.brick', seed: 2, params: {} } });
    expect(p.coats[0]).toBe(dialled.coats[0]);
  });
  it('are named by what they are, unless somebody named them', () => {
    expect(coatTitle(stacked.coats[0])).toBe('Cold-press paper · multiply');
    expect(coatTitle({ ...stacked.coats[0], name: 'Sheet' })).toBe('Sheet · multiply');
  });
  it('gather strokes in one part until another kind lies above', () => {
    const s = strokeSchema.parse({ points: [[0.5, 0.5, 1]] });
    const two = edits.addStroke('c0', s)(edits.addStroke('c0', s)(stacked));
    expect(two.coats[0].mask.parts).toHaveLength(1);
    const three = edits.addStroke('c0', s)(edits.addPart('c0', ellipseSchema.parse({ kind: 'ellipse' }))(two));
    expect(three.coats[0].mask.parts.map((p) => p.kind)).toEqual(['strokes', 'ellipse', 'strokes']);
    expect(edits.changePart('c0', 1, null)(three).coats[0].mask.parts).toHaveLength(2);
  });
});

it.each([
  [88, 90],
  [2.5, 0],
  [-178, 180],
  [45, 45],
  [271, -90],
  [357.5, 0],
])('a turn of %d° is drawn to %d°', (from, to) => {
  expect(snapTurn(from)).toBeCloseTo(to, 6);
});

describe('lay', () => {
  const frame = { width: 1500, height: 1000, unit: 0.75 };
  const lay = (more: object) => laySchema.parse(more);
  it('covers the photo whatever the size of the material', () => {
    for (const size of [
      { width: 100, height: 100 },
      { width: 9000, height: 400 },
    ]) {
      const [k] = fitScale(lay({}), size, frame);
      expect(size.width * k).toBeGreaterThanOrEqual(1500 - 1e-6);
      expect(size.height * k).toBeGreaterThanOrEqual(1000 - 1e-6);
    }
    expect(fitScale(lay({ fit: 'contain' }), { width: 100, height: 100 }, frame)).toEqual([10, 10]);
    expect(fitScale(lay({ fit: 'stretch' }), { width: 100, height: 100 }, frame)).toEqual([15, 10]);
    expect(fitScale(lay({ fit: 'tile' }), { width: 100, height: 100 }, frame)).toEqual([0.75, 0.75]);
  });
  it('puts the middle of the material on the middle of the photo, moved, turned clockwise and flipped', () => {
    const size = { width: 300, height: 200 };
    const at = (m: ReturnType<typeof layMap>, x: number, y: number) => [m.a * x + m.c * y + m.e, m.b * x + m.d * y + m.f];
    const near = (got: number[], want: number[]) => want.forEach((v, i) => expect(got[i]).toBeCloseTo(v, 6));
    near(at(layMap(lay({}), size, frame), 750, 500), [150, 100]);
    near(at(layMap(lay({ x: 0.1, y: -0.2 }), size, frame), 900, 300), [150, 100]);
    // Turned by 90° clockwise, the material's left edge points up.
    const turned = at(layMap(lay({ fit: 'tile', turn: 90 }), size, frame), 750, 500 - 0.75 * 100);
    near(turned, [50, 100]);
    near(at(layMap(lay({ fit: 'tile', flipX: true }), size, frame), 750 + 75, 500), [50, 100]);
    // A picture held at half its nominal size is read at half the place.
    near(at(layMap(lay({}), size, frame, { width: 150, height: 100 }), 0, 0), [0, 0]);
  });
});

describe('recipes', () => {
  const example = {
    dermatex: 1,
    name: 'Example',
    coats: [
      {
        name: 'Sheet',
        source: { kind: 'material', id: 'paper.cold-press', seed: 7, params: {} },
        lay: { fit: 'cover', scale: 1.2, x: 0, y: 0, turn: 90, flipX: false, flipY: false },
        treatments: [{ kind: 'tone', brightness: 0.1, contrast: 0.2, saturation: -0.4, hue: 0, invert: false }],
        blend: 'multiply',
        strength: 0.35,
        limits: [0, 0, 1, 1],
        mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.4, rx: 0.2, ry: 0.3, turn: 0, feather: 1, density: 0.8 }] },
        guards: 1,
      },
      { source: { kind: 'picture', file: 'cloud.png' }, lay: { fit: 'stretch' }, blend: 'soft-light', strength: 0.9 },
      { source: { kind: 'colour', colour: '#808080' }, blend: 'overlay', strength: 1 },
    ],
  };
  it('reads the shape of the design, with neutral defaults for what is left out', () => {
    const recipe = parseRecipe(JSON.stringify(example));
    expect(recipe.coats[1]).toMatchObject({
      visible: true,
      lay: { fit: 'stretch', scale: 1 },
      limits: [0, 0, 1, 1],
      mask: { start: 'all', parts: [] },
    });
  });
  it('goes to a piece and back unchanged', () => {
    const recipe = parseRecipe(JSON.stringify(example));
    let n = 0;
    const again = recipeOf({ ...piece, name: 'Example', coats: coatsOf(recipe, () => `n${n++}`) });
    expect(again).toEqual(recipe);
    expect(parseRecipe(JSON.stringify(again))).toEqual(recipe);
  });
  it.each([
    ['nonsense', /^This file is not a recipe/],
    ['{"dermatex":2,"coats":[]}', /at dermatex/],
    ['{"dermatex":1,"coats":[{"source":{"kind":"colour","colour":"red"}}]}', /at coats\.?\[1\]\.source\.colour/],
    ['{"dermatex":1,"coats":[{"source":{"kind":"photo"},"blend":"sparkle"}]}', /at coats\.?\[1\]\.blend/],
    ['{"dermatex":1,"coats":[{"source":{"kind":"photo"},"opacity":1}]}', /does not know "opacity"/],
    ['{"dermatex":1,"ready":{"crop":{"w":0}},"coats":[]}', /at ready.crop.w/],
    ['{"dermatex":1,"coats":[{"source":{"kind":"photo"},"limits":[0.5,0.2,1,1]}]}', /limits must rise/],
  ])('refuses %s in one sentence', (text, says) => {
    expect(() => parseRecipe(text)).toThrow(says);
    try {
      parseRecipe(text);
    } catch (error) {
      expect((error as Error).message.split('\n')).toHaveLength(1);
    }
  });
});

it('every treatment and lay carries words for its panel, and begins at neutral values or says that it does not', () => {
  for (const t of treatments) {
    expect(t.source.length).toBeGreaterThan(5);
    expect(controlsOf(t.schema).every((c) => c.meta.label && c.neutral !== undefined)).toBe(true);
    expect(t.neutral(t.schema.parse({ kind: t.kind }))).toBe(!t.shows);
  }
  expect(controlsOf(laySchema).map((c) => c.key)).toEqual([
    'fit',
    'scale',
    'stretchX',
    'stretchY',
    'x',
    'y',
    'turn',
    'flipX',
    'flipY',
    'mirror',
    'mix',
    'faces',
  ]);
});

describe('strokes', () => {
  const stroke = strokeSchema.parse({
    size: 100,
    flow: 0.4,
    points: [
      [0, 0.5, 1],
      [0.5, 0.5, 0.5],
    ],
  });
  it('are laid as dabs a tenth of the tip apart, in u, with the pressure of the pen', () => {
    const dabs = dabsOf(stroke, 2000, 1000);
    expect(dabs.length / DAB).toBe(101);
    expect([...dabs.slice(0, 4)]).toEqual([0, 500, 50, expect.closeTo(0.4, 6)]);
    expect(dabs[DAB]).toBeCloseTo(10, 4);
    expect(dabs[dabs.length - DAB + 2]).toBeCloseTo(25, 4);
  });
  it('refuse values out of range', () => {
    expect(() => strokeSchema.parse({ ...stroke, size: 0 })).toThrow();
    expect(() => coatSchema.parse({ id: 'x', source: { kind: 'photo' }, strength: 1.2 })).toThrow();
  });
});

describe('a late crop', () => {
  const crop = (source: object, ready: object) => {
    const before: Piece = { ...piece, coats: [coatSchema.parse({ id: 'a', source })] };
    return setReady(before, readySchema.parse(ready)).coats[0].source as Record<string, number>;
  };
  const half = { crop: { x: 0.25, y: 0.25, w: 0.5, h: 0.5 } };
  it('leaves the ends of a gradient on the same points of the photo', () => {
    const { x1, y1, x2, y2 } = crop({ kind: 'gradient', x1: 0.25, y1: 0.5, x2: 0.75, y2: 0.5 }, half);
    [x1, y1, x2, y2].forEach((v, i) => expect(v).toBeCloseTo([0, 0.5, 1, 0.5][i], 9));
  });
  it('keeps the size of grain on the photo', () => {
    // Half as long, a u is half as many pixels.
    expect(crop({ kind: 'grain', size: 2 }, half).size).toBeCloseTo(4, 9);
  });
});

describe('a recipe', () => {
  it('with an unknown kind or mode is refused with its name and the nearest known one', () => {
    const recipe = (coat: object) => JSON.stringify({ dermatex: 1, coats: [{ source: { kind: 'below' }, ...coat }] });
    expect(() => parseRecipe(recipe({ treatments: [{ kind: 'blurr' }] }))).toThrow(
      'at coats[1].treatments[1].kind, "blurr" is not known; the nearest that is known is "blur".',
    );
    expect(() => parseRecipe(recipe({ source: { kind: 'colour2' } }))).toThrow('"colour2" is not known; the nearest that is known is "colour".');
    expect(() => parseRecipe(recipe({ mask: { parts: [{ kind: 'elipse' }] } }))).toThrow(
      '"elipse" is not known; the nearest that is known is "ellipse".',
    );
    expect(() => parseRecipe(recipe({ blend: 'multply' }))).toThrow('"multply" is not known; the nearest that is known is "multiply".');
    expect(() => parseRecipe(recipe({ treatments: [{ radius: 3 }] }))).toThrow('a kind is missing');
    expect(() => parseRecipe(recipe({ blend: 'x'.repeat(500) }))).toThrow(`"${'x'.repeat(80)}…" is not known`);
  });
  it('is laid whole on an untouched photo: readying with its places, guards, strength and coats', () => {
    const look = parseRecipe(
      JSON.stringify({
        dermatex: 1,
        strength: 0.6,
        ready: { crop: { x: 0.1, w: 0.8 }, whiteBalance: { neutral: [0.3, 0.4] }, even: { amount: 0.5 }, spots: [{ points: [[0.5, 0.5]] }] },
        guards: { regions: { lips: { amount: 0.4 } } },
        coats: [{ source: { kind: 'colour' } }],
      }),
    );
    const laid = layRecipe(
      look,
      coatsOf(look, () => 'n'),
    )(piece);
    expect(laid.ready).toEqual(look.ready);
    expect(laid).toMatchObject({ strength: 0.6, guards: { regions: { lips: { amount: 0.4 } } } });
    expect(ids(laid)).toBe('n');
  });
  it('leaves coats that are there on their points of the photo, and their strength', () => {
    const own: Piece = { ...piece, strength: 0.8, coats: [coatSchema.parse({ id: 'own', source: { kind: 'gradient', x1: 0.5, y1: 0.5 } })] };
    const look = parseRecipe(JSON.stringify({ dermatex: 1, ready: { crop: { x: 0.5, w: 0.5 } }, coats: [] }));
    const laid = layRecipe(look, [])(own);
    expect(laid.strength).toBe(0.8);
    expect((laid.coats[0].source as { x1?: number }).x1).toBeCloseTo(0, 9);
  });
});
