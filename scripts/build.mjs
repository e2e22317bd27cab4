// npm run build: all that the server serves and all that runs in Node.
import { execFileSync } from 'node:child_process';
import { ensureInstalled } from './install.mjs';

ensureInstalled();
const { buildNode } = await import('./build-node.mjs');
const { buildPublic, exportPage } = await import('./build-web.mjs');
const { bundle, root } = await import('./run-ts.mjs');
const thumbs = await bundle('scripts/thumbs.ts');
/** In a process of its own: it ends with its workers. */
const runThumbs = () => execFileSync(process.execPath, [thumbs], { stdio: 'inherit' });
process.env.DERMATEX_ROOT = root;
await buildNode();
await bundle('server/main.ts');
await buildPublic();
runThumbs();
exportPage();
