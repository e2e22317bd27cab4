// npm run build: all that the server serves and all that runs in Node.
import { ensureInstalled } from './install.mjs';

ensureInstalled();
const { buildNode } = await import('./build-node.mjs');
const { buildPublic, exportPage } = await import('./build-web.mjs');
const { bundle } = await import('./run-ts.mjs');
await buildNode();
await bundle('server/main.ts');
await buildPublic();
exportPage();
