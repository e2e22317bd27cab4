import { realpathSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { Engine } from './engine';
import type { Find } from './guards';
import { Library, type Decoded } from './library';
import { Pool, type WorkerHandle } from './pool';
import type { FromWorker } from './protocol';

/** The project's folder, which holds the compiled kernels and the models: named by scripts, else the one in whose `build/` the running bundle lies. */
export const root = process.env.DERMATEX_ROOT ?? path.dirname(path.dirname(realpathSync(process.argv[1])));

/** Pixels are in kernel memory; of the short-lived tables of windows, V8 would keep 60 MB a thread before it collects them. */
const resourceLimits = { maxYoungGenerationSizeMb: 12 };

function spawn(): WorkerHandle {
  const worker = new Worker(path.join(root, 'build/src-engine-node.worker.mjs'), { resourceLimits });
  worker.unref();
  return {
    post: (message, transfer = []) => worker.postMessage(message, transfer),
    listen(onMessage, onDeath) {
      worker.on('message', (message: FromWorker) => onMessage(message));
      worker.on('error', (error) => onDeath(error.message));
      worker.on('exit', (code) => code !== 0 && onDeath(`exit ${code}`));
    },
    terminate: () => void worker.terminate(),
  };
}

export interface NodeEngineOptions {
  decode(key: string, deep?: boolean): Promise<Decoded>;
  size?: number;
  /** Mip levels of pictures: 1 where everything is drawn at full size. */
  levels?: number;
  /** Spots are taken out of a picture where it lies: for an engine that draws once. */
  inPlace?: boolean;
  shared?: boolean;
  find?: Find;
  /** See PoolOptions. */
  patience?: number;
  /** See EngineOptions. */
  keeps?: boolean;
}

/** The engine on worker threads: the same core, the same interface as in a browser. */
export async function nodeEngine({ decode, size, levels, inPlace, shared = true, patience, find, keeps }: NodeEngineOptions): Promise<Engine> {
  const module = await WebAssembly.compile(await readFile(path.join(root, shared ? 'public/kernels-shared.wasm' : 'public/kernels.wasm')));
  const pool = new Pool({ module, shared, size: size ?? Math.min(8, Math.max(1, os.availableParallelism())), spawn, patience });
  await pool.ready();
  return new Engine({ pool, decode, find, keeps, library: new Library(pool, undefined, levels, inPlace) });
}
