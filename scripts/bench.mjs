// npm run bench: speed and memory as ratios in one run.
import { ensureInstalled } from './install.mjs';

ensureInstalled();
const { buildNode } = await import('./build-node.mjs');
const { bundle, root } = await import('./run-ts.mjs');
process.env.DERMATEX_ROOT = root;
await buildNode();
await import(await bundle('bench/main.ts'));
