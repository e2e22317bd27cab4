import { addStep, changeStep, moveStep, newCoat, removeStep, setTreatment } from './edits';
import { parseRecipe } from './recipe';
import { coatSchema, pieceSchema } from './schema';

const coat = coatSchema.parse({
  id: 'a',
  source: { kind: 'material', id: 'cracks.mud' },
  treatments: [{ kind: 'tone' }, { kind: 'invert' }, { kind: 'blur', radius: 4 }],
});
const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'p',
  created: 0,
  changed: 0,
  photo: { key: 'k', name: 'k', width: 40, height: 30 },
  coats: [coat, { ...coat, id: 'b' }],
});
const kinds = (p: typeof piece, i = 0) => p.coats[i].treatments.map((t) => t.kind);

describe('steps of a coat', () => {
  it('are added at the end, more than one of a kind if wanted, on that coat only', () => {
    const next = addStep('a', { kind: 'blur', radius: 9 })(piece);
    expect(kinds(next)).toEqual(['tone', 'invert', 'blur', 'blur']);
    expect(kinds(next, 1)).toEqual(['tone', 'invert', 'blur']);
    expect(next.coats[1]).toBe(piece.coats[1]);
  });
  it('are never more than fifty', () => {
    let full = piece;
    for (let i = 0; i < 60; i++) full = addStep('a', { kind: 'invert' })(full);
    expect(full.coats[0].treatments).toHaveLength(50);
    expect(() => pieceSchema.parse(full)).not.toThrow();
  });
  it('are changed, moved and taken off by their place', () => {
    expect(changeStep('a', 2, { radius: 12, strength: 0.5 })(piece).coats[0].treatments[2]).toMatchObject({
      kind: 'blur',
      radius: 12,
      strength: 0.5,
    });
    expect(kinds(moveStep('a', 2, -1)(piece))).toEqual(['tone', 'blur', 'invert']);
    expect(kinds(moveStep('a', 2, 1)(piece))).toEqual(['tone', 'invert', 'blur']);
    expect(kinds(moveStep('a', 0, -1)(piece))).toEqual(['tone', 'invert', 'blur']);
    expect(kinds(removeStep('a', 1)(piece))).toEqual(['tone', 'blur']);
  });
  it('keep their switch, strength and mode while the tone is changed', () => {
    const eased = changeStep('a', 0, { strength: 0.3, mode: 'overlay' })(piece);
    expect(setTreatment('a', 'tone', { brightness: 0.2 })(eased).coats[0].treatments[0]).toMatchObject({
      brightness: 0.2,
      strength: 0.3,
      mode: 'overlay',
    });
  });
});

describe('a recipe with steps', () => {
  const recipe = (step: object) => JSON.stringify({ dermatex: 1, coats: [{ source: { kind: 'below' }, treatments: [step] }] });
  it('has them on, at full strength and in normal unless it says otherwise', () => {
    const [{ treatments }] = parseRecipe(recipe({ kind: 'drape', map: 'below', amountX: 12, amountY: 12, blur: 3, edge: 'duplicate' })).coats;
    expect(treatments[0]).toMatchObject({ kind: 'drape', active: true, strength: 1, mode: 'normal', amountX: 12, edge: 'duplicate' });
    expect(parseRecipe(recipe({ kind: 'invert', active: false, mode: 'pin-light' })).coats[0].treatments[0]).toMatchObject({
      active: false,
      mode: 'pin-light',
    });
  });
  it.each([
    [{ kind: 'sparkle' }],
    [{ kind: 'blur', radius: -1 }],
    [{ kind: 'tint', colour: 'brown' }],
    [{ kind: 'invert', mode: 'behind' }],
    [{ kind: 'invert', strength: 2 }],
    [{ kind: 'relief', slope: 3 }],
  ])('is refused with one sentence when a step is wrong: %j', (step) => {
    let message = '';
    try {
      parseRecipe(recipe(step));
    } catch (error) {
      expect(error).toBeInstanceOf(RangeError);
      ({ message } = error as RangeError);
    }
    expect(message.length).toBeGreaterThan(10);
    expect(message).not.toContain('\n');
  });
});

describe('a coat that is made of numbers', () => {
  it.each([
    ['gradient', 'soft-light'],
    ['grain', 'overlay'],
    ['colour', 'soft-light'],
    ['below', 'normal'],
  ])('begins in a mode that suits it: %s', (kind, mode) => {
    const made = newCoat('n', { kind });
    expect(made.blend).toBe(mode);
    expect(made.strength).toBeGreaterThan(0.4);
  });
  it('a gradient whose stops do not rise is refused', () => {
    const stops = [
      { at: 0.6, colour: '#000000' },
      { at: 0.2, colour: '#ffffff' },
    ];
    expect(() => coatSchema.parse({ id: 'n', source: { kind: 'gradient', stops } })).toThrow('stops of a gradient must rise');
  });
});
