// npm run dev: Expo's development server, with kernels and worker built beforehand. The page is not isolated there, so each worker has
// its own memory.
import { spawn } from 'node:child_process';
import path from 'node:path';
import { ensureInstalled } from './install.mjs';

ensureInstalled();
const { buildPublic, expoEnvironment } = await import('./build-web.mjs');
const { root } = await import('./run-ts.mjs');
await buildPublic();
const { CI: _none, ...env } = expoEnvironment;
spawn(process.execPath, [path.join(root, 'node_modules/expo/bin/cli'), 'start', '--web'], { cwd: root, stdio: 'inherit', env });
