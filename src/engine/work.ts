import type { Heap } from '../core/image/heap';
import type { Work } from '../core/materials/drafts';
import { SCRATCH_BYTES } from './protocol';

/** Takes working memory for as long as something is asked of a worker: null where the worker's own scratch memory is enough. */
export async function withWork<T>(heap: Heap, bytes: number, ask: (work: Work | null) => Promise<T>): Promise<T> {
  if (bytes <= SCRATCH_BYTES) return ask(null);
  const at = heap.take(bytes);
  try {
    return await ask({ at, bytes });
  } finally {
    heap.give(at);
  }
}
