/** A store in memory for unit tests, with the calls that src/store/storage.ts makes. */
export function createAsyncStorage() {
  const held = new Map<string, string>();
  return {
    getItem: async (key: string) => held.get(key) ?? null,
    setItem: async (key: string, value: string) => void held.set(key, value),
    setMany: async (entries: Record<string, string>) => Object.entries(entries).forEach(([k, v]) => held.set(k, v)),
    removeMany: async (keys: string[]) => keys.forEach((k) => held.delete(k)),
    getAllKeys: async () => [...held.keys()],
  };
}
