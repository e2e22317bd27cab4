import { readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Find } from '../guards';
import { root } from '../node';
import { startFinder } from './start';
import type { ModelFiles, ModelName } from './models';

const readModel = async (folder: string, name: ModelName): Promise<ModelFiles> => {
  const [graph, weights] = await Promise.all(['json', 'bin'].map((ending) => readFile(path.join(folder, `${name}.${ending}`))));
  return {
    graph: JSON.parse(graph.toString()),
    weights: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.byteLength) as ArrayBuffer,
  };
};

/** Faces and people in Node, with the same models; started when first wanted. */
export function nodeFind(folder = path.join(root, 'models')): Find {
  let started: ReturnType<typeof startFinder> | undefined;
  return async (_key, input, { onProgress, signal }) => {
    started ??= (async () => {
      const kernels = await WebAssembly.compile(await readFile(path.join(root, 'public/kernels.wasm')));
      return startFinder(kernels, (name) => readModel(folder, name), path.join(root, 'node_modules/@tensorflow/tfjs-backend-wasm/dist/'));
    })();
    started.catch(() => (started = undefined));
    const find = await started;
    signal?.throwIfAborted();
    return find(await input(), onProgress);
  };
}
