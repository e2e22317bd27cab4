/** A store in memory for unit tests, with the calls that src/store/database.ts makes. */
const databases = new Map<string, Map<string, string>>();

export class AsyncStorageError extends Error {
  static Type = { WebStorageError: 'WebStorageError' };
  constructor(
    message: string,
    readonly type: string,
  ) {
    super(message);
  }
}

/** What the next writes fail with; for tests of a full or closed store. */
export const faults: { write: (() => Error | null) | null; open: boolean } = { write: null, open: true };

export function createAsyncStorage(name: string) {
  const held = databases.get(String(name)) ?? new Map<string, string>();
  databases.set(String(name), held);
  const opened = () => {
    if (!faults.open) throw new AsyncStorageError('refused', 'WebStorageError');
  };
  const write = () => {
    opened();
    const error = faults.write?.();
    if (error) throw error;
  };
  return {
    getItem: async (key: string) => (opened(), held.get(key) ?? null),
    getMany: async (keys: string[]) => (opened(), Object.fromEntries(keys.map((k) => [k, held.get(k) ?? null]))),
    setMany: async (entries: Record<string, string>) => (write(), Object.entries(entries).forEach(([k, v]) => held.set(k, v))),
    removeMany: async (keys: string[]) => (write(), keys.forEach((k) => held.delete(k))),
    getAllKeys: async () => (opened(), [...held.keys()]),
  };
}
