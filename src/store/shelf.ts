import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';
import { complain } from './notices';
import { changeShelf, readShelf, type ShelfMemory } from './storage';

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
export const useShelf = create<ShelfState>((set) => {
  const keep = async (change: (shelf: ShelfMemory) => Partial<ShelfMemory>) => {
    // Seen at once; what other tabs have kept meanwhile comes with the record.
    set((now) => change(now));
    set(await changeShelf((now) => ({ ...now, ...change(now) })));
  };
  return {
    favourites: [],
    recent: [],
    async refresh() {
      set(await readShelf());
    },
    favour(id, on) {
      void keep(({ favourites }) => {
        const others = favourites.filter((f) => f !== id);
        return { favourites: on ? [...others, id] : others };
      }).catch(complain);
    },
    laid(source) {
      if (source.kind !== 'material' && source.kind !== 'picture') return;
      const id = shelfId(source);
      void keep(({ recent }) => ({ recent: [id, ...recent.filter((r) => r !== id)].slice(0, MOST_RECENT) })).catch(complain);
    },
  };
});
