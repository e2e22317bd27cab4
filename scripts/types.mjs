// npm run types: the kernels' bindings are made when the kernels are compiled, so these come first.
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildKernels } from './kernels.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
await buildKernels();
execFileSync(
  path.join(root, 'node_modules/.bin/tsc'),
  ['--noEmit', '--incremental', '--tsBuildInfoFile', path.join(root, 'build/types.tsbuildinfo')],
  {
    cwd: root,
    stdio: 'inherit',
  },
);
