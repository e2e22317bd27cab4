import { materials } from '../materials';
import { newCoat } from '../piece/edits';
import { coatSchema, type Coat } from '../piece/schema';
import { firstControl, firstOf, readFirst, specOf, withFirst, type FirstValue } from '.';

const coatOf = (id: string) => newCoat('a', { kind: 'material', id, seed: 3 });
const specs = materials.flatMap((m) => (m.first ?? []).map((spec) => [m.id, firstControl(spec).label(spec), spec] as const));
const CHAIN = ['split', 'tone', 'levels', 'invert', 'remap', 'tint', 'drape', 'relief'];

/** What a first tap on a control gives. */
const tapped = (coat: Coat, spec: (typeof specs)[number][2]): FirstValue => {
  const { shape, begins } = firstControl(spec);
  if (shape === 'colour') return '#dcae52';
  if (shape === 'amount') return readFirst(coat, spec) === 0 ? begins : 0;
  if (shape === 'switch') return readFirst(coat, spec) === 0 ? 1 : 0;
  if (shape === 'slider') return Number(readFirst(coat, spec)) > 0.5 ? 0.2 : 0.9;
  return 2;
};
const kinds = (coat: Coat) => coat.treatments.map((t) => t.kind as string);
const inChain = (coat: Coat) => {
  const places = kinds(coat).map((kind) => CHAIN.indexOf(kind));
  return places.every((p, i) => p >= 0 && (i === 0 || p > places[i - 1]));
};

it.each(materials.map((m) => [m.id]))('%s leads its page with two to five controls, and begins as a valid coat', (id) => {
  const coat = coatOf(id);
  expect(firstOf(coat).length).toBeGreaterThanOrEqual(2);
  expect(firstOf(coat).length).toBeLessThanOrEqual(5);
  expect(coatSchema.parse(coat)).toEqual(coat);
  expect(inChain(coat)).toBe(true);
});

describe.each(specs)('%s: %s', (id, _label, spec) => {
  const { shape, control } = firstControl(spec);

  it('is read back as it is set', () => {
    const amounts: FirstValue[] =
      shape === 'colour' ? ['#dcae52', '#3a2314'] : shape === 'switch' ? [1, 0] : shape === 'size' ? [1.5, 2.2] : [0.3, 0.6, 0.85, 1];
    if (shape === 'parameter') return expect(readFirst(withFirst(coatOf(id), spec, 1), spec)).toBe(1);
    for (const amount of amounts) {
      const next = withFirst(coatOf(id), spec, amount);
      const back = readFirst(next, spec);
      if (typeof amount !== 'number') expect(back).toBe(amount);
      // The range of light on black ends at white, and displacement is in whole u.
      else if (!(control === 'only' && amount !== 1 && typeof specOf(next, 'only')?.white === 'number'))
        expect(Math.abs(Number(back) - amount)).toBeLessThan(control === 'amount' ? 0.31 : 0.03);
      expect(coatSchema.parse(next)).toEqual(next);
    }
  });

  if (shape === 'amount' || shape === 'switch')
    it('gives back what it replaced when it is switched off', () => {
      const offFirst = withFirst(coatOf(id), spec, 0);
      expect(readFirst(offFirst, spec)).toBe(0);
      const mine: Coat = { ...offFirst, blend: 'color-burn', strength: 0.37 };
      const back = withFirst(withFirst(mine, spec, 1), spec, 0);
      expect(readFirst(back, spec)).toBe(0);
      expect({ ...back, replaced: undefined }).toEqual({ ...mine, replaced: undefined });
    });
});

it.each(specs.map((s, i) => [s[0], s[1], i] as const))(
  '%s: after %s each other control still changes the coat, in the order of the chain',
  (id, _label, i) => {
    const spec = specs[i][2];
    const before = withFirst(coatOf(id), spec, tapped(coatOf(id), spec));
    for (const other of firstOf(before)) {
      if (other === spec) continue;
      const after = withFirst(before, other, tapped(before, other));
      expect(after).not.toEqual(before);
      expect(inChain(after)).toBe(true);
    }
  },
);

describe('marks alone', () => {
  const craquelure = coatOf('cracks.craquelure');
  const only = specOf(craquelure, 'only')!;
  const raised = specOf(craquelure, 'raised')!;

  it('begin switched on at 60 % for craquelure, a little raised', () => {
    expect(readFirst(craquelure, only)).toBeCloseTo(0.6);
    expect(readFirst(craquelure, raised)).toBeCloseTo(0.3);
    expect(craquelure).toMatchObject({ blend: 'hard-light', strength: 1, guardAmounts: { skin: 0.6 } });
    expect(kinds(craquelure)).toEqual(['levels', 'remap', 'relief']);
  });

  it('of paper lie on white in multiply, and on mid grey in hard light once raised or chalk', () => {
    const aged = coatOf('paper.aged');
    const flat = withFirst(aged, specOf(aged, 'only')!, 0.6);
    const ground = (coat: Coat) => [coat.blend, (coat.treatments.find((t) => t.kind === 'remap') as unknown as { light: string }).light];
    expect(ground(flat)).toEqual(['multiply', '#ffffff']);
    const lit = withFirst(flat, specOf(aged, 'raised')!, 0.6);
    expect(ground(lit)).toEqual(['hard-light', '#808080']);
    expect(ground(withFirst(lit, specOf(aged, 'raised')!, 0))).toEqual(['multiply', '#ffffff']);
    expect(ground(withFirst(flat, specOf(aged, 'colour')!, '#f4efe6'))).toEqual(['hard-light', '#808080']);
  });

  it('take the tint along, and leave it behind', () => {
    const mud = coatOf('cracks.mud');
    const [marks, colour] = [specOf(mud, 'only')!, specOf(mud, 'colour')!];
    const tinted = withFirst(mud, colour, '#dcae52');
    const alone = withFirst(tinted, marks, 0.6);
    expect(readFirst(alone, colour)).toBe('#dcae52');
    expect(kinds(alone)).not.toContain('tint');
    const brown = withFirst(alone, colour, '#16110d');
    expect(readFirst(withFirst(brown, marks, 0), colour)).toBe('#16110d');
  });
});

it('other effects of a coat stay where they are', () => {
  const coat = withFirst(coatOf('cloth.linen'), specOf(coatOf('cloth.linen'), 'raised')!, 0.6);
  const blurred = coatSchema.parse({ ...coat, treatments: [{ kind: 'blur', radius: 4 }, ...coat.treatments] });
  const next = withFirst(blurred, specOf(coat, 'form')!, 0.6);
  expect(kinds(next)).toEqual(['blur', 'tone', 'drape', 'relief']);
});

it('own pictures have no first controls', () => {
  expect(firstOf({ source: { kind: 'material', id: 'own:abc' } as never })).toEqual([]);
  expect(firstOf({ source: { kind: 'below' } as never })).toEqual([]);
});
