// Draws the made-up photographs of demo/ anew.
import { buildNode } from './build-node.mjs';
import { bundle, root } from './run-ts.mjs';

process.env.DERMATEX_ROOT = root;
await buildNode();
await import(await bundle('demo/draw/main.ts'));
