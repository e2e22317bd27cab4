import { materials } from '../src/core/materials';
import { materialKey } from '../src/engine/library';
import { nodeEngine } from '../src/engine/node';
import { line, timed } from './probe';

/** How long each generator takes at 1024², warm, in one worker. */
export async function materialTimes(): Promise<void> {
  const engine = await nodeEngine({ size: 1, decode: () => Promise.reject(new Error('no pictures here')) });
  for (const m of materials) {
    const order = { id: m.id, seed: 1, params: {}, width: 1024, height: 1024 };
    const t = await timed(async () => {
      engine.library.drop(materialKey(order));
      await engine.library.material(order);
    });
    line(`${m.id} at 1024²`, `${t.best.toFixed(0)} ms`, t.probe);
  }
  engine.pool.close();
}
