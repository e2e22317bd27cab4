// Everything that runs in Node: kernels, the worker thread and the command line.
import { statSync, existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { buildKernels } from './kernels.mjs';
import { bundle, root } from './run-ts.mjs';

const newest = (folder) =>
  readdirSync(folder, { withFileTypes: true }).reduce((t, e) => {
    const f = path.join(folder, e.name);
    return Math.max(t, e.isDirectory() ? newest(f) : statSync(f).mtimeMs);
  }, 0);

/** Returns the path of the command line's bundle. */
export async function buildNode() {
  await buildKernels();
  const workers = ['src-engine-node.worker.mjs', 'cli-decode.worker.mjs'].map((name) => path.join(root, 'build', name));
  const main = path.join(root, 'build/cli-main.mjs');
  const sources = Math.max(...['src/core', 'src/engine', 'cli'].map((f) => newest(path.join(root, f))));
  if (![...workers, main].every((f) => existsSync(f) && statSync(f).mtimeMs > sources)) {
    await bundle('src/engine/node.worker.ts');
    await bundle('cli/decode.worker.ts');
    await bundle('cli/main.ts');
  }
  return main;
}
