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

/** The engine in a page. `file` finds the file of a picture's key. Memory is shared when the page is isolated. */
export async function browserEngine(file: (key: string) => Promise<Blob>, find?: Find): Promise<Engine> {
  const shared = globalThis.crossOriginIsolated === true;
  const response = await fetch(shared ? '/kernels-shared.wasm' : '/kernels.wasm');
  const module = await WebAssembly.compile(await response.arrayBuffer());
  const pool = new Pool({ module, shared, size: Math.min(8, Math.max(1, navigator.hardwareConcurrency || 1)), spawn });
  await pool.ready();
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
