import { modes } from '../blend';
import { materials } from '../materials';
import { candidatesOf, familyOf, subjectsFor } from './candidates';
import { coatSchema, pieceSchema } from './schema';

const coat = coatSchema.parse({
  id: 'a',
  source: { kind: 'material', id: 'paper.aged' },
  blend: 'overlay',
  strength: 0.35,
  treatments: [{ kind: 'relief', direction: 90 }],
});
const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'p',
  created: 0,
  changed: 0,
  photo: { key: 'k', name: 'k', width: 40, height: 30 },
  coats: [coat],
});

describe('ways in which a coat could be', () => {
  it('every mode once, those tried first leading, the present one marked', () => {
    const list = candidatesOf(coat, 'modes');
    expect(new Set(list.map((c) => c.key)).size).toBe(modes.length);
    const first = modes.filter((m) => m.triedFirst).length;
    expect(list.slice(0, first).every((c) => modes.find((m) => m.id === c.key)?.triedFirst)).toBe(true);
    expect(list.filter((c) => c.now).map((c) => c.key)).toEqual(['overlay']);
    const screen = list.find((c) => c.key === 'screen');
    expect(screen?.edit(piece).coats[0]).toEqual({ ...coat, blend: 'screen' });
  });
  it('every material of the family, with all else kept', () => {
    const list = candidatesOf(coat, 'materials');
    expect(list.map((c) => c.key).sort()).toEqual(
      materials
        .filter((m) => m.family === familyOf(coat))
        .map((m) => m.id)
        .sort(),
    );
    const other = list.find((c) => !c.now);
    expect(other?.edit(piece).coats[0]).toMatchObject({ blend: 'overlay', strength: 0.35, source: { id: other?.key } });
    // The one in use keeps its own figures and seed.
    expect(list.find((c) => c.now)?.edit(piece)).toBe(piece);
  });
  it('imported pictures are a family of their own', () => {
    const own = [
      { key: 'a1', name: 'Sail', source: { kind: 'picture', file: 'a1', width: 10, height: 8 } },
      { key: 'b2', name: 'Wall', source: { kind: 'picture', file: 'b2', width: 10, height: 8 } },
    ];
    const list = candidatesOf(coat, 'materials', 'own', own);
    expect(list.map((c) => c.name)).toEqual(['Sail', 'Wall']);
    const laid = list[1].edit(piece).coats[0];
    expect(laid).toMatchObject({ blend: 'overlay', strength: 0.35, source: { kind: 'picture', file: 'b2' } });
    expect(familyOf(laid)).toBe('own');
    expect(candidatesOf(laid, 'materials', 'own', own).map((c) => c.now)).toEqual([false, true]);
  });
  it('strengths, scales and directions of light', () => {
    expect(candidatesOf(coat, 'strengths').find((c) => c.now)?.name).toBe('35 %');
    expect(
      candidatesOf(coat, 'scales')
        .find((c) => c.key === '2')
        ?.edit(piece).coats[0].lay.scale,
    ).toBe(2);
    const lights = candidatesOf(coat, 'lights');
    expect(lights.find((c) => c.now)?.name).toBe('From the right');
    expect(lights[0].edit(piece).coats[0].treatments[0]).toMatchObject({ kind: 'relief', direction: 0 });
  });
  it('offers only what makes sense', () => {
    expect(subjectsFor(coat)).toEqual(['modes', 'materials', 'strengths', 'scales', 'lights', 'step']);
    expect(subjectsFor(coatSchema.parse({ id: 'b', source: { kind: 'below' } }))).toEqual(['modes', 'strengths']);
    expect(candidatesOf(coatSchema.parse({ id: 'b', source: { kind: 'below' } }), 'lights')).toEqual([]);
  });
});
