import type { Engine } from '../src/engine/engine';
import { nodeEngine, type NodeEngineOptions } from '../src/engine/node';

/** Starts an engine for a piece of work, and ends its threads whatever becomes of the work. */
export async function withEngine<T>(options: (engine: () => Engine) => NodeEngineOptions, work: (engine: Engine) => Promise<T>): Promise<T> {
  let engine: Engine | null = null;
  const started = () => {
    if (!engine) throw new Error('The engine has not started yet.');
    return engine;
  };
  engine = await nodeEngine(options(started));
  try {
    return await work(engine);
  } finally {
    engine.pool.close();
  }
}
