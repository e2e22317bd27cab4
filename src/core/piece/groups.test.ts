import { newCoat } from './edits';
import { everyCoat, findCoat, groupOf, innerCoats, levelOf, mapCoats } from './groups';
import { coatsOf, recipeOf } from './recipe';
import { coatSchema, pieceSchema, recipeSchema, type Coat, type Piece } from './schema';
import * as stacking from './stacking';

const empty: Piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'Test',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k.jpg', width: 300, height: 200 },
});
const plain = (id: string, more: object = {}): Coat => coatSchema.parse({ id, source: { kind: 'colour', colour: '#808080' }, ...more });
const stacked: Piece = { ...empty, coats: ['a', 'b', 'c', 'd'].map((id) => plain(id)) };
/** "a (b c) d": groups in brackets. */
const shape = (coats: readonly Coat[]): string => coats.map((coat) => (groupOf(coat) ? `${coat.id}(${shape(innerCoats(coat))})` : coat.id)).join(' ');
const grouped = stacking.groupCoats(['b', 'c'], 'g')(stacked);

describe('groups of coats', () => {
  it('coats are put together where the uppermost lies, in their order', () => {
    expect(shape(grouped.coats)).toBe('a g(b c) d');
    expect(shape(stacking.groupCoats(['d', 'a'], 'g')(stacked).coats)).toBe('b c g(a d)');
    expect(stacking.groupCoats([], 'g')(stacked)).toBe(stacked);
    expect(stacking.groupCoats(['unknown'], 'g')(stacked)).toBe(stacked);
  });
  it('a group among the chosen goes whole, and its coats do not leave it', () => {
    expect(shape(stacking.groupCoats(['g', 'b', 'd'], 'h')(grouped).coats)).toBe('a h(g(b c) d)');
    expect(shape(stacking.groupCoats(['a', 'b'], 'h')(grouped).coats)).toBe('g(h(a b) c) d');
  });
  it('is taken apart in its place; coats of a hidden group stay hidden', () => {
    expect(shape(stacking.ungroup('g')(grouped).coats)).toBe('a b c d');
    const hidden = stacking.ungroup('g')(stacking.setFlags(['g'], { visible: false })(grouped));
    expect(hidden.coats.map(({ visible }) => visible)).toEqual([true, false, false, true]);
    expect(stacking.ungroup('a')(grouped)).toBe(grouped);
  });
  it('coats in it are found, added above, moved, copied and removed like any other', () => {
    expect(findCoat(grouped, 'c')?.id).toBe('c');
    expect(levelOf(grouped.coats, 'c')).toMatchObject({ at: 1, groups: [{ id: 'g' }] });
    expect(shape(stacking.addCoat(plain('n'), 'b')(grouped).coats)).toBe('a g(b n c) d');
    expect(shape(stacking.moveCoat('b', 5)(grouped).coats)).toBe('a g(c b) d');
    expect(shape(stacking.removeCoat('b')(grouped).coats)).toBe('a g(c) d');
    expect(shape(stacking.duplicateCoat('c', () => 'n')(grouped).coats)).toBe('a g(b c n) d');
    expect(stacking.removeCoat('unknown')(grouped)).toBe(grouped);
  });
  it('a coat is dragged into a group, out of it, and never into itself', () => {
    expect(shape(stacking.moveToCoat('a', 'b')(grouped).coats)).toBe('g(b a c) d');
    expect(shape(stacking.moveToCoat('c', 'd')(grouped).coats)).toBe('a g(b) d c');
    expect(shape(stacking.moveToCoat('c', 'g')(grouped).coats)).toBe('a c g(b) d');
    expect(stacking.moveToCoat('g', 'b')(grouped)).toBe(grouped);
    expect(shape(stacking.moveIntoGroup('d', 'g')(grouped).coats)).toBe('a g(b c d)');
    expect(stacking.moveIntoGroup('g', 'g')(grouped)).toBe(grouped);
    expect(shape(stacking.moveOutOfGroup('b')(grouped).coats)).toBe('a g(c) b d');
    expect(stacking.moveOutOfGroup('a')(grouped)).toBe(grouped);
  });
  it('a copy has new ids, and its masks go by its own coats', () => {
    const linked = { ...grouped, coats: mapCoats(grouped.coats, (coat) => (coat.id === 'c' ? withMaskOf(coat, 'b') : coat)) };
    let n = 0;
    const copied = stacking.duplicateCoat('g', () => `n${n++}`)(linked);
    expect(shape(copied.coats)).toBe('a g(b c) n0(n1 n2) d');
    expect(findCoat(copied, 'n2')?.mask.parts[0].coat).toBe('n1');
    expect(findCoat(copied, 'c')?.mask.parts[0].coat).toBe('b');
  });
  it('goes into a recipe and back, with the ids that masks need', () => {
    const linked = { ...grouped, coats: mapCoats(grouped.coats, (coat) => (coat.id === 'd' ? withMaskOf(coat, 'b') : coat)) };
    const recipe = recipeSchema.parse(JSON.parse(JSON.stringify(recipeOf(linked))));
    const inner = (recipe.coats[1].source as unknown as { coats: { id?: string }[] }).coats;
    expect(inner.map(({ id }) => id)).toEqual(['b', undefined]);
    let n = 0;
    const coats = coatsOf(recipe, () => `n${n++}`);
    expect(shape(coats)).toBe('n0 n1(n2 n3) n4');
    expect(coats[2].mask.parts[0].coat).toBe('n2');
  });
  it('groups lie at most four deep in each other', () => {
    const nested = (depth: number): object => (depth === 0 ? plain('x') : { id: `g${depth}`, source: { kind: 'group', coats: [nested(depth - 1)] } });
    expect(pieceSchema.safeParse({ ...empty, coats: [nested(4)] }).success).toBe(true);
    expect(pieceSchema.safeParse({ ...empty, coats: [nested(5)] }).success).toBe(false);
    expect(pieceSchema.safeParse({ ...empty, coats: [nested(3000)] }).success).toBe(false);
  });
  it('a coat in a locked group is locked too', () => {
    const locked = stacking.setFlags(['g'], { locked: true })(grouped);
    expect(stacking.lockedCoats(locked.coats).map(({ id }) => id)).toEqual(['g', 'b', 'c']);
    expect(stacking.isLocked(locked, 'c')).toBe(true);
    expect(stacking.isLocked(locked, 'a')).toBe(false);
  });
  it('a new coat of a material lies in the group of the chosen one', () => {
    const coat = newCoat('n', { kind: 'material', id: 'paper.aged', seed: 1, params: {} });
    expect(everyCoat(stacking.addCoat(coat, 'c')(grouped).coats).map(({ id }) => id)).toEqual(['a', 'g', 'b', 'c', 'n', 'd']);
  });
});

const withMaskOf = (coat: Coat, id: string): Coat =>
  coatSchema.parse({ ...coat, mask: { start: 'none', parts: [{ kind: 'coat', coat: id, op: 'add' }] } });
