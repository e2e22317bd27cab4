import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Decoded } from '../src/engine/library';
import { root } from '../src/engine/node';
import type { Pool } from '../src/engine/pool';
import { Refused } from './files';
import { sizeOf } from './pictures';

/** What the decoding thread is asked for. */
export interface DecodeOrder {
  file: string;
  wantsDeep: boolean;
  memory: WebAssembly.Memory;
  /** Address of its pixels. */
  at: number;
}

/**
 * A picture file for the engine. It is decoded when its place in shared memory is known, in a thread of its own: what the decoder holds is
 * given back when that ends, while Node would keep a second copy of the pixels for as long as it likes.
 */
export async function decodeFile(file: string, pool: Pool, wantsDeep = false): Promise<Decoded> {
  const memory = pool.machine?.memory;
  if (!memory) throw new Error('Files are decoded to shared memory.');
  return { ...(await sizeOf(file, wantsDeep)), place: (at) => inThread({ file, wantsDeep, memory, at }) };
}

function inThread(order: DecodeOrder): Promise<void> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(path.join(root, 'build/cli-decode.worker.mjs'), { workerData: order });
    thread.on('error', ({ message }) => reject(new Refused(message)));
    thread.on('exit', (code) =>
      code === 0 ? resolve() : reject(new Refused(`“${path.basename(order.file)}” cannot be decoded: its decoder ended.`)),
    );
  });
}
