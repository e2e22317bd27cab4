import { innerCoats } from '../piece/groups';
import { layRecipe } from '../piece/recipe';
import { coatSchema, pieceSchema, recipeSchema, type Coat } from '../piece/schema';
import { asGroup } from './asGroup';
import { needsOf, partsOfLook } from './needs';

const grey = (id: string, more: object = {}) => coatSchema.parse({ id, source: { kind: 'colour', colour: '#808080' }, ...more });
const byCoat = (coat: string) => ({ start: 'none', parts: [{ kind: 'coat', op: 'add', coat }] });
const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'P',
  created: 0,
  changed: 0,
  photo: { key: 'k', name: 'k', width: 10, height: 10 },
  ready: { tone: { exposure: 1 } },
  guards: { regions: { eyes: { amount: 0.5 } } },
  coats: [grey('a'), grey('b', { mask: byCoat('a') }), grey('c')],
});

describe('what goes into a look', () => {
  it('is what is ticked', () => {
    const look = partsOfLook(piece, { coats: ['c'], ready: false, guards: true });
    expect(look.coats.map(({ id }) => id)).toEqual(['c']);
    expect([look.ready, look.guards]).toEqual([undefined, piece.guards]);
  });

  it('a mask that goes by a coat which stays behind loses that part, and keeps it where both go', () => {
    expect(partsOfLook(piece, { coats: ['b'], ready: true, guards: true }).coats[0].mask.parts).toEqual([]);
    expect(partsOfLook(piece, { coats: ['a', 'b', 'c'], ready: true, guards: true })).toEqual(piece);
  });
});

describe('where its coats go', () => {
  const recipe = recipeSchema.parse({ dermatex: 1, name: 'L', strength: 0.5, coats: [{ source: { kind: 'colour', colour: '#fff000' } }] });
  const added = [grey('x')];
  const laid = (place?: Parameters<typeof layRecipe>[3]) => layRecipe(recipe, added, null, place)(piece);
  const ids = (place?: Parameters<typeof layRecipe>[3]) => laid(place).coats.map(({ id }) => id);

  it('is on top, directly above one, or in place of all', () => {
    expect(ids()).toEqual(['a', 'b', 'c', 'x']);
    expect(ids({ above: 'a' })).toEqual(['a', 'x', 'b', 'c']);
    expect(ids('instead')).toEqual(['x']);
    // A coat that is not there any more: on top.
    expect(ids({ above: 'gone' })).toEqual(['a', 'b', 'c', 'x']);
  });

  it('laid twice in place of all it is there once', () => {
    const twice = layRecipe(recipe, [grey('y')], null, 'instead')(laid('instead'));
    expect(twice.coats.map(({ id }) => id)).toEqual(['y']);
  });
});

it('a look says which pictures it uses, and whether it goes by people', () => {
  const of = (coat: object) => needsOf({ coats: [coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#808080' }, ...coat })] });
  expect(of({ source: { kind: 'picture', file: 'cloud.png', width: 2, height: 2 } })).toEqual({ pictures: ['cloud.png'], people: false });
  for (const coat of [
    { lay: { fit: 'tile', faces: true } },
    { source: { kind: 'cutout' } },
    { mask: { start: 'none', parts: [{ kind: 'guard', region: 'skin', op: 'add' }] } },
    { treatments: [{ kind: 'drape', map: 'form' }] },
  ])
    expect(of(coat).people).toBe(true);
});

describe('a look beside other coats', () => {
  it('is a group with its name and strength; a single coat at full strength stays as it is', () => {
    const two = asGroup({ name: 'Old', strength: 0.5 }, [grey('x'), grey('y')], 'g');
    expect(two.strength).toBe(1);
    expect(two.coats).toMatchObject([{ id: 'g', name: 'Old', strength: 0.5, guards: 0 }]);
    expect(innerCoats(two.coats[0]).map(({ id }) => id)).toEqual(['x', 'y']);
    expect(asGroup({ name: 'Old', strength: 1 }, [grey('x')], 'g').coats).toEqual([grey('x')]);
    expect(asGroup({ name: 'Old', strength: 0.4 }, [grey('x')], 'g').coats[0].strength).toBe(0.4);
  });
  it('can be read again however deep its own groups lie', () => {
    let coats: readonly Coat[] = [grey('x'), grey('y')];
    for (let i = 0; i < 8; i++) coats = asGroup({ name: 'Old', strength: 0.9 }, coats, `g${i}`).coats;
    expect(coats.every((coat) => coatSchema.safeParse(coat).success)).toBe(true);
  });
});
