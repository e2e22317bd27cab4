import { depthOf, withInner } from '../piece/groups';
import { coatSchema, DEEPEST, type Coat, type Recipe } from '../piece/schema';

/**
 * Coats of a look as one group with the look's name and strength. Coats that lie too deep in
 * groups already stay as they are, and so does a single coat at full strength.
 *
 * @returns the coats, and what is left of the look's strength for the whole piece
 */
export function asGroup({ name, strength }: Pick<Recipe, 'name' | 'strength'>, coats: readonly Coat[], id: string) {
  if ((coats.length < 2 && strength === 1) || coats.length === 0 || depthOf(coats) >= DEEPEST + 1) return { coats, strength };
  const group = coatSchema.parse({ id, name: name.slice(0, 200), strength, source: { kind: 'group', coats: [] }, guards: 0 });
  return { coats: [withInner(group, coats)], strength: 1 };
}
