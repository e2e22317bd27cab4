import type { Finding } from '../../core/guards/finding';
import { Cancelled } from '../stopping';
import type { Find } from '../guards';
import type { FromFinder } from './finder.worker';

/** Models that have not answered by then will not: seconds of silence, since every step reports. */
const PATIENCE = 60_000;

/** Faces and people in a page: a worker of its own, loaded when first wanted. Stopping ends the worker. */
export function browserFind(): Find {
  let worker: Worker | null = null;
  let last: Promise<unknown> = Promise.resolve();
  const end = () => {
    worker?.terminate();
    worker = null;
  };
  const one: Find = async (_key, input, { signal, onProgress }) => {
    if (signal?.aborted) throw new Cancelled();
    const data = await input();
    return new Promise<Finding>((resolve, reject) => {
      worker ??= new Worker('/finder.worker.js', { type: 'module' });
      const fail = (error: Error) => {
        clearTimeout(timer);
        end();
        reject(error);
      };
      const silent = () => fail(new Error('Looking for faces and people got no answer; try again, or paint regions by hand.'));
      let timer = setTimeout(silent, PATIENCE);
      signal?.addEventListener('abort', () => fail(new Cancelled()), { once: true });
      worker.onerror = () => fail(new Error('What finds faces and people could not be loaded; everything else works.'));
      worker.onmessage = ({ data: message }: MessageEvent<FromFinder>) => {
        clearTimeout(timer);
        if ('share' in message) {
          timer = setTimeout(silent, PATIENCE);
          onProgress?.(message.share);
        } else if ('finding' in message) resolve(message.finding);
        else fail(new Error(message.error));
      };
      worker.postMessage({ input: data }, [data.bytes.buffer]);
    });
  };
  // One photo after another.
  return (...order) => {
    const turn = last.then(() => one(...order));
    last = turn.catch(() => undefined);
    return turn;
  };
}
