import { pixelBytes } from '../core/image/picture';
import { Engine } from './engine';
import type { Find } from './guards';
import type { Decoded } from './library';
import { Pool, type WorkerHandle } from './pool';
import type { FromWorker } from './protocol';

function spawn(): WorkerHandle {
  const worker = new Worker('/engine.worker.js', { type: 'module' });
  return {
    post: (message, transfer = []) => worker.postMessage(message, transfer),
    listen(onMessage, onDeath) {
      worker.onmessage = (event: MessageEvent<FromWorker>) => onMessage(event.data);
      worker.onerror = (event) => onDeath(event.message);
    },
    terminate: () => worker.terminate(),
  };
}

async function kernels(at: string): Promise<WebAssembly.Module> {
  const bytes = await fetch(at)
    .then((response) => (response.ok ? response.arrayBuffer() : null))
    .catch(() => null);
  if (!bytes) throw new Error('A part of Dermatex did not come (its kernels), so nothing can be drawn; your work is kept, reload the page to go on.');
  try {
    return await WebAssembly.compile(bytes);
  } catch {
    throw new Error(
      'This browser cannot draw here: it has no WebAssembly with SIMD, or is kept from it. A browser from 2023 or later has; your pieces stay as they are.',
    );
  }
}

async function startPool(shared: boolean): Promise<Pool> {
  const module = await kernels(shared ? '/kernels-shared.wasm' : '/kernels.wasm');
  const pool = new Pool({ module, shared, size: Math.min(8, Math.max(1, navigator.hardwareConcurrency || 1)), spawn });
  await pool.ready().catch((error) => {
    pool.close();
    throw error;
  });
  return pool;
}

/**
 * Workers on shared memory where the browser gives that, else each on its own. An isolated page does not tell: some browsers have no shared memory, or
 * cannot post it to a worker. So it is tried.
 */
async function pooled(): Promise<Pool> {
  if (globalThis.crossOriginIsolated && typeof SharedArrayBuffer === 'function') {
    try {
      return await startPool(true);
    } catch {
      // Drawn without it, a little slower.
    }
  }
  return startPool(false);
}

/** The engine in a page. `file` finds the file of a picture's key. */
export async function browserEngine(file: (key: string) => Promise<Blob>, find?: Find): Promise<Engine> {
  const pool = await pooled();
  const { shared } = pool;
  // A bitmap lives in the worker that decoded it until it is placed, so files are decoded one after another.
  let last: Promise<unknown> = Promise.resolve();
  const decode = (key: string, deep = false): Promise<Decoded> =>
    new Promise((resolve, reject) => {
      last = last.then(async () => {
        try {
          const size = await pool.call<{ width: number; height: number; deep: boolean }>({ call: 'decode', file: await file(key), deep }, 0);
          await new Promise<void>((placed) => {
            const place = async (at: number) => {
              try {
                await pool.call({ call: 'place', at, width: size.width, height: size.height }, 0);
                if (!shared) await engine.library.repeat(at, size.width * size.height * pixelBytes(size.deep));
              } finally {
                placed();
              }
            };
            resolve({ ...size, place });
          });
        } catch (error) {
          reject(error as Error);
        }
      });
    });
  const engine: Engine = new Engine({
    pool,
    decode,
    find,
    encode: (pixels, width, height, encoding) => pool.call<Blob>({ call: 'encode', at: pixels.at, pixels: pixels.array, width, height, encoding }),
  });
  return engine;
}
