import type { Heap } from '../core/image/heap';
import type { Work } from '../core/materials/drafts';

/** Takes working memory for as long as something is asked of a worker. */
export async function withWork<T>(heap: Heap, bytes: number, ask: (work: Work) => Promise<T>): Promise<T> {
  const at = heap.take(bytes);
  try {
    return await ask({ at, bytes });
  } finally {
    heap.give(at);
  }
}
