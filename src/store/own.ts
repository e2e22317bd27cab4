import { create } from 'zustand';
import { takePicture } from './files';
import * as storage from './storage';

interface OwnState {
  list: storage.OwnMaterial[];
  names: Record<string, string>;
  refresh(): Promise<void>;
  add(file: Blob, name: string): Promise<storage.OwnMaterial>;
  remove(key: string): Promise<void>;
}

const names = (list: storage.OwnMaterial[]) => Object.fromEntries(list.map((o) => [o.key, o.name.replace(/\.[a-z0-9]+$/i, '')]));

/** Pictures that the person has brought in as materials. */
export const useOwn = create<OwnState>((set, get) => {
  const keep = async (list: storage.OwnMaterial[]) => {
    await storage.saveOwn(list);
    set({ list, names: { ...get().names, ...names(list) } });
  };
  return {
    list: [],
    names: {},
    async refresh() {
      const list = await storage.listOwn();
      set({ list, names: { ...get().names, ...names(list) } });
    },
    async add(file, name) {
      const own = { ...(await takePicture(file, name)), added: Date.now() };
      await keep([own, ...(await storage.listOwn()).filter((o) => o.key !== own.key)]);
      return own;
    },
    async remove(key) {
      await keep((await storage.listOwn()).filter((o) => o.key !== key));
    },
  };
});
