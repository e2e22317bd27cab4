import type { Finding } from '../../core/guards/finding';
import type { FinderInput } from '../guards';
import { startFinder } from './start';

export type ToFinder = { input: FinderInput };
export type FromFinder = { share: number } | { finding: Finding } | { error: string };

const scope = self as unknown as { postMessage(message: FromFinder): void; onmessage: (event: MessageEvent<ToFinder>) => void };

const read = async (file: string): Promise<Response> => {
  const response = await fetch(file);
  if (!response.ok) throw new Error(`${file}: ${response.status}`);
  return response;
};

let started: ReturnType<typeof startFinder> | undefined;
const start = () =>
  (started ??= read('/kernels.wasm')
    .then((response) => response.arrayBuffer())
    .then((bytes) => WebAssembly.compile(bytes))
    .then((kernels) =>
      startFinder(
        kernels,
        async (name) => {
          const [graph, weights] = await Promise.all([read(`/finder/${name}.json`), read(`/finder/${name}.bin`)]);
          return { graph: (await graph.json()) as object, weights: await weights.arrayBuffer() };
        },
        '/finder/',
      ),
    ));

scope.onmessage = async ({ data }) => {
  try {
    const find = await start();
    scope.postMessage({ share: 0.1 });
    scope.postMessage({ finding: await find(data.input, (share) => scope.postMessage({ share: 0.1 + 0.9 * share })) });
  } catch (error) {
    started = undefined;
    scope.postMessage({ error: (error as Error).message });
  }
};
