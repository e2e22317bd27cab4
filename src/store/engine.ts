import { browserEngine } from '../engine/browser';
import type { Engine } from '../engine/engine';
import { storedFind } from './findings';
import { loadPicture } from './pictures';

let engine: Promise<Engine> | null = null;

/** The one engine of the page, started when first wanted. */
export function getEngine(): Promise<Engine> {
  engine ??= browserEngine(loadPicture, storedFind).then(
    (e) => {
      // For tests of what happens when a worker dies.
      (globalThis as { dermatexEngine?: Engine }).dermatexEngine = e;
      return e;
    },
    (error) => {
      // The next request tries again.
      engine = null;
      throw error;
    },
  );
  return engine;
}
