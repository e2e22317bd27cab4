import { create } from 'zustand';
import * as z from 'zod';
import type { LookFamily } from '../core/looks';
import type { Edit } from '../core/piece/edits';
import { findCoat } from '../core/piece/groups';
import { hasPainting, recipeOf, withoutPainting, type LookPlace } from '../core/piece/recipe';
import { recipeSchema, type Piece, type Recipe } from '../core/piece/schema';
import { useBench } from './bench';
import { newId } from './newId';
import { layingOf } from './recipes';
import { changeLooks, listLooks } from './storage';
import { words } from './words';

const keptSchema = z.object({ id: z.string(), recipe: recipeSchema, picture: z.string().nullable().optional() });

/** A recipe with a name, ready to be laid. */
export interface Look {
  id: string;
  /** Own ones belong to no family. */
  family: LookFamily | null;
  recipe: Recipe;
  /** JPEG data URL of an own one on the piece that it was made on. */
  picture?: string | null;
}

interface LooksState {
  /** Those that ship; null until they are read. */
  shipped: Look[] | null;
  own: Look[];
  refresh(): Promise<void>;
  /** Saves a piece's look under a name. What was painted on its photo is left out unless asked for. */
  keep(piece: Piece, name: string, withPainting: boolean, picture?: string | null): Promise<void>;
  /** Takes a look that came from elsewhere. */
  take(recipe: Recipe, picture?: string | null): Promise<void>;
  rename(id: string, name: string): Promise<void>;
  remove(id: string): Promise<void>;
  /** Brings one back that was removed. */
  bringBack(look: Look): Promise<void>;
}

const shippedLooks = async (): Promise<Look[]> => {
  const { shippedLooks: list } = await import('../core/looks');
  return list.map(({ id, family, recipe }) => ({ id, family, recipe: recipeSchema.parse(recipe) }));
};

export const useLooks = create<LooksState>((set, get) => {
  const read = (list: readonly unknown[]): Look[] =>
    list.flatMap((one) => {
      const { data } = keptSchema.safeParse(one);
      return data ? [{ ...data, family: null }] : [];
    });
  const put = async (to: (kept: unknown[]) => unknown[]) => set({ own: read(await changeLooks(to)) });
  return {
    shipped: null,
    own: [],
    async refresh() {
      set({ own: read(await listLooks()), shipped: get().shipped ?? (await shippedLooks()) });
    },
    keep(piece, name, withPainting, picture) {
      const recipe = recipeOf({ ...(withPainting ? piece : withoutPainting(piece)), name: name.trim().slice(0, 200) || piece.name });
      return put((kept) => [{ id: newId(), recipe, picture }, ...kept]);
    },
    take: (recipe, picture) => put((kept) => [{ id: newId(), recipe, picture }, ...kept]),
    rename: (id, name) =>
      put((kept) =>
        kept.map((one) => {
          const { data } = keptSchema.safeParse(one);
          return data?.id === id ? { ...data, recipe: { ...data.recipe, name: name.slice(0, 200) } } : one;
        }),
      ),
    remove: (id) => put((kept) => kept.filter((one) => (one as { id?: string }).id !== id)),
    bringBack: ({ id, recipe, picture }) => put((kept) => [{ id, recipe, picture }, ...kept]),
  };
});

export { hasPainting };

/** Where the coats of a look go that is tried or used. */
export const useLookPlace = create<{ place: 'top' | 'instead' | 'above'; above: string | null }>(() => ({ place: 'top', above: null }));

export function placeNow(piece: Piece): LookPlace {
  const { place, above } = useLookPlace.getState();
  if (place === 'above') return above !== null && findCoat(piece, above) ? { above } : 'top';
  return place;
}

/** The last look that was applied: the piece before it, and the ids of the coats that it added. */
let last: { before: Piece; coats: readonly string[] } | null = null;

/** The piece to which a look is applied. It replaces the last look as long as no coat was added or removed since. */
export function lookBase(piece: Piece): Piece {
  const isLast = last?.before.id === piece.id && last.coats.length > 0 && piece.coats.map((c) => c.id).join() === last.coats.join();
  return isLast && last ? { ...last.before, name: piece.name, changed: piece.changed } : piece;
}

/** The edit that lays a look on a piece, and what to remember once it is kept. */
export async function lookEdit(look: Look, piece: Piece): Promise<{ edit: Edit; kept(): void; top: string | null }> {
  const base = lookBase(piece);
  const { edit, coats } = await layingOf(look.recipe, base, placeNow(base));
  const kept = () => void (last = base.coats.length === 0 ? { before: base, coats: coats.map((c) => c.id) } : null);
  return { edit: (now) => edit(lookBase(now)), kept, top: coats[coats.length - 1]?.id ?? null };
}

/** Keeps a look on the open piece: one step of undo. Returns the uppermost coat that it has brought. */
export async function takeLook(look: Look): Promise<string | null> {
  const { piece, change } = useBench.getState();
  if (!piece) return null;
  const { edit, kept, top } = await lookEdit(look, piece);
  change(words.looks.look(look.recipe.name), edit);
  kept();
  return top;
}
