import { materials } from '../src/core/materials';
import { materialKey } from '../src/engine/library';
import { nodeEngine } from '../src/engine/node';
import { line, timed } from './probe';

/** How long each generator takes at 1024², warm, in one worker. */
export async function materialTimes(): Promise<void> {
  const engine = await nodeEngine({ size: 1, decode: () => Promise.reject(new Error('no pictures here')) });
  const only = process.argv[3]?.split(',');
  for (const m of materials) {
    if (only && !only.includes(m.id)) continue;
    const order = { id: m.id, seed: 1, params: {}, width: 1024, height: 1024 };
    const t = await timed(async () => {
      engine.library.drop(materialKey(order));
      await engine.library.material(order);
    });
    line(`${m.id} at 1024² (goal 500)`, `${t.best.toFixed(0)} ms`, t.probe);
  }
  engine.pool.close();
}
