import { create } from 'zustand';
import * as z from 'zod';
import { partsOf, withParts } from '../core/ready/parts';
import { neutralReady, readySchema, type Ready } from '../core/ready/schema';
import { newId } from './newId';
import { changeStarts, listStarts } from './storage';

const startSchema = z.object({ id: z.string(), name: z.string().min(1).max(80), ready: readySchema });
/** A readying that was kept under a name, to begin another piece from. */
export type Start = z.output<typeof startSchema>;

interface StartsState {
  kept: Start[];
  /** The readying of a piece that was copied, for another one. */
  copied: { from: string; ready: Ready } | null;
  refresh(): Promise<void>;
  keep(name: string, ready: Ready): Promise<void>;
  rename(id: string, name: string): Promise<void>;
  remove(id: string): Promise<void>;
  copy(from: string, ready: Ready): void;
}

/** What of a readying can serve on another photo. */
const portable = (ready: Ready): Ready => withParts(neutralReady, ready, partsOf(ready));

export const useStarts = create<StartsState>((set) => {
  const put = async (to: (kept: Start[]) => Start[]) => {
    const kept = await changeStarts((list) => to(list.flatMap((one) => startSchema.safeParse(one).data ?? [])));
    set({ kept: kept as Start[] });
  };
  return {
    kept: [],
    copied: null,
    async refresh() {
      const found = z.array(startSchema).safeParse(await listStarts());
      if (found.success) set({ kept: found.data });
    },
    keep: (name, ready) => put((kept) => [{ id: newId(), name: name.trim().slice(0, 80), ready: portable(ready) }, ...kept]),
    rename: (id, name) => put((kept) => kept.map((s) => (s.id === id && name.trim() ? { ...s, name: name.trim().slice(0, 80) } : s))),
    remove: (id) => put((kept) => kept.filter((s) => s.id !== id)),
    copy: (from, ready) => set({ copied: { from, ready: portable(ready) } }),
  };
});
