/** Works one after another where the browser has no Web Locks: within this page only. */
const lines = new Map<string, Promise<unknown>>();

/**
 * Runs work while holding a lock that all tabs of this origin share (Web Locks API).
 * @param name what is locked
 * @param mode several tabs may hold a shared lock at once
 */
export function withLock<T>(name: string, work: () => Promise<T>, mode: LockMode = 'exclusive'): Promise<T> {
  const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
  if (locks) return locks.request(`dermatex-${name}`, { mode }, work) as Promise<T>;
  const turn = (lines.get(name) ?? Promise.resolve()).then(work, work);
  lines.set(name, turn);
  return turn;
}
