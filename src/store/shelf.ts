import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';
import { complain } from './notices';
import { readShelf, saveShelf, type ShelfMemory } from './storage';

const MOST_RECENT = 8;

interface ShelfState extends ShelfMemory {
  refresh(): Promise<void>;
  favour(id: string, on: boolean): void;
  /** Remembers that something was laid. */
  laid(source: SourceInput): void;
}

/** What a material goes by here: the generator's id, or the key of an own picture. */
export const shelfId = (source: SourceInput): string => String(source.kind === 'material' ? source.id : source.file);

/** Favourites and what was used last. */
export const useShelf = create<ShelfState>((set, get) => {
  let known: Promise<void> | null = null;
  /** What was kept is read before the first change, or it would be written over. */
  const keep = async (change: () => Partial<ShelfMemory>) => {
    await (known ??= get().refresh());
    set(change());
    const { favourites, recent } = get();
    await saveShelf({ favourites, recent });
  };
  return {
    favourites: [],
    recent: [],
    async refresh() {
      set(await readShelf());
    },
    favour(id, on) {
      const next = () => {
        const others = get().favourites.filter((f) => f !== id);
        return { favourites: on ? [...others, id] : others };
      };
      void keep(next).catch(complain);
    },
    laid(source) {
      if (source.kind !== 'material' && source.kind !== 'picture') return;
      const id = shelfId(source);
      void keep(() => ({ recent: [id, ...get().recent.filter((r) => r !== id)].slice(0, MOST_RECENT) })).catch(complain);
    },
  };
});
