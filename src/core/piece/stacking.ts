import type { Edit } from './edits';
import { changeLevel, everyCoat, filterCoats, findCoat, groupOf, innerCoats, levelOf, mapCoats, withInner } from './groups';
import { coatSchema, type Coat, type Piece } from './schema';

// Changes of the order of coats, and of which coats there are.

const withCoats = (piece: Piece, coats: readonly Coat[]): Piece => (coats === piece.coats ? piece : { ...piece, coats: [...coats] });
const onLevel = (piece: Piece, id: string, change: (coats: readonly Coat[], at: number) => readonly Coat[]): Piece =>
  withCoats(piece, changeLevel(piece.coats, id, change));

/** Puts a coat directly above the chosen one, in the same group; first on the photo when none is chosen. */
export const addCoat =
  (coat: Coat, above: string | null): Edit =>
  (piece) => {
    if (above === null || !findCoat(piece, above)) return withCoats(piece, [coat, ...piece.coats]);
    return onLevel(piece, above, (coats, at) => [...coats.slice(0, at + 1), coat, ...coats.slice(at + 1)]);
  };

/** Removes a coat; a group goes with all that is in it. */
export const removeCoat =
  (id: string): Edit =>
  (piece) =>
    onLevel(piece, id, (coats, at) => coats.filter((_, i) => i !== at));

/** Puts a copy directly above a coat. @param newId - Asked for the copy's id first, then for those of the coats in it. */
export const duplicateCoat =
  (id: string, newId: () => string): Edit =>
  (piece) =>
    onLevel(piece, id, (coats, at) => [...coats.slice(0, at + 1), ...renewed([coats[at]], newId), ...coats.slice(at + 1)]);

/** Moves a coat to a place among those of its group, counted from the bottom; a place beyond an end is that end. */
export const moveCoat =
  (id: string, to: number): Edit =>
  (piece) =>
    onLevel(piece, id, (coats, from) => {
      const rest = coats.filter((_, i) => i !== from);
      const at = Math.max(0, Math.min(rest.length, to));
      return at === from ? coats : [...rest.slice(0, at), coats[from], ...rest.slice(at)];
    });

/** Moves a coat to where another one lies, in that one's group: above it when it comes from below, else below it. */
export const moveToCoat =
  (id: string, target: string): Edit =>
  (piece) => {
    const [from, to] = [levelOf(piece.coats, id), levelOf(piece.coats, target)];
    if (!from || !to || id === target || to.groups.some((group) => group.id === id)) return piece;
    const coat = from.coats[from.at];
    if (from.coats === to.coats) return moveCoat(id, to.at)(piece);
    const order = everyCoat(piece.coats).map((one) => one.id);
    const above = order.indexOf(id) < order.indexOf(target) ? 1 : 0;
    return onLevel(removeCoat(id)(piece), target, (coats, at) => [...coats.slice(0, at + above), coat, ...coats.slice(at + above)]);
  };

/** Moves a coat into a group, on top of what is in it. */
export const moveIntoGroup =
  (id: string, group: string): Edit =>
  (piece) => {
    const [from, to] = [levelOf(piece.coats, id), levelOf(piece.coats, group)];
    if (!from || !to || id === group || !groupOf(to.coats[to.at]) || to.groups.some((one) => one.id === id)) return piece;
    const coat = from.coats[from.at];
    const add = (coats: readonly Coat[], at: number) => coats.map((one, i) => (i === at ? withInner(one, [...innerCoats(one), coat]) : one));
    return onLevel(removeCoat(id)(piece), group, add);
  };

/** Moves a coat out of its group, to directly above it. */
export const moveOutOfGroup =
  (id: string): Edit =>
  (piece) => {
    const level = levelOf(piece.coats, id);
    const around = level?.groups.at(-1);
    return level && around ? addCoat(level.coats[level.at], around.id)(removeCoat(id)(piece)) : piece;
  };

/** Those of some coats that are not inside another of them: what is done to a group applies to all of its coats. */
export const outermost = (piece: Pick<Piece, 'coats'>, ids: readonly string[]): string[] =>
  everyCoat(piece.coats)
    .map(({ id }) => id)
    .filter((id) => ids.includes(id) && !levelOf(piece.coats, id)?.groups.some((group) => ids.includes(group.id)));

/** Puts coats together in a new group where the uppermost of them lies. The picture stays the same when they lie directly on each other. */
export const groupCoats =
  (ids: readonly string[], newId: string, name?: string): Edit =>
  (piece) => {
    const own = outermost(piece, ids);
    const top = own.at(-1);
    if (top === undefined) return piece;
    const inner = own.map((id) => findCoat(piece, id) as Coat);
    const group = coatSchema.parse({ id: newId, ...(name ? { name } : {}), source: { kind: 'group', coats: [] }, guards: 0 });
    const placed = addCoat(withInner(group, inner), top)(piece);
    // Those that lie in the new group stay.
    const drop = (coats: readonly Coat[]): Coat[] =>
      coats.flatMap((coat) => {
        if (coat.id === newId) return [coat];
        if (own.includes(coat.id)) return [];
        return [groupOf(coat) ? withInner(coat, drop(innerCoats(coat))) : coat];
      });
    return withCoats(piece, drop(placed.coats));
  };

/** Puts the coats of a group in its place. Its own strength, mode, mask, steps and guards go. */
export const ungroup =
  (id: string): Edit =>
  (piece) =>
    onLevel(piece, id, (coats, at) => {
      const group = coats[at];
      if (!groupOf(group)) return coats;
      const inner = innerCoats(group).map((coat) => (group.visible ? coat : { ...coat, visible: false }));
      return [...coats.slice(0, at), ...inner, ...coats.slice(at + 1)];
    });

/**
 * Coats with new ids, those in groups too. Masks that go by one of them go by it still.
 * @param outside - What becomes of the id of a coat that is none of them; it stays when left out.
 */
export function renewed<C extends Omit<Coat, 'id'> & { id?: string }>(
  coats: readonly C[],
  newId: () => string,
  outside: (id: string) => string = (id) => id,
): (C & { id: string })[] {
  const all = everyCoat(coats);
  const ids = new Map(all.map((coat) => [coat, newId()]));
  const byOld = new Map(all.flatMap((coat) => (coat.id === undefined ? [] : [[coat.id, ids.get(coat) as string] as const])));
  const rename = (coat: C): C & { id: string } => {
    const parts = coat.mask.parts.map((p) => (p.kind === 'coat' ? { ...p, coat: byOld.get(String(p.coat)) ?? outside(String(p.coat)) } : p));
    const renamed = { ...coat, id: ids.get(coat) as string, mask: { ...coat.mask, parts } };
    return groupOf(coat) ? withInner(renamed, innerCoats(coat).map(rename)) : renamed;
  };
  return coats.map(rename);
}

/** Coats that may not be changed by hand, those in locked groups too. */
export const lockedCoats = (coats: readonly Coat[]): Coat[] =>
  coats.flatMap((coat) => (coat.locked ? everyCoat([coat]) : lockedCoats(innerCoats(coat))));

export const isLocked = ({ coats }: Pick<Piece, 'coats'>, id: string | null | undefined): boolean =>
  lockedCoats(coats).some((coat) => coat.id === id);

/** Shows, hides, locks or unlocks several coats. */
export const setFlags =
  (ids: readonly string[], flags: Partial<Pick<Coat, 'visible' | 'locked'>>): Edit =>
  (piece) =>
    withCoats(
      piece,
      mapCoats(piece.coats, (coat) => (ids.includes(coat.id) ? { ...coat, ...flags } : coat)),
    );

/** Removes several coats. */
export const removeCoats =
  (ids: readonly string[]): Edit =>
  (piece) =>
    withCoats(
      piece,
      filterCoats(piece.coats, ({ id }) => !ids.includes(id)),
    );
