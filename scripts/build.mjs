// npm run build: all that the server serves and all that runs in Node. Says what it is doing, with times.
import { execFileSync } from 'node:child_process';
import { ensureInstalled } from './install.mjs';

ensureInstalled();
const { buildKernels } = await import('./kernels.mjs');
const { buildNode } = await import('./build-node.mjs');
const { buildPublic, exportPage } = await import('./build-web.mjs');
const { bundle, root } = await import('./run-ts.mjs');
process.env.DERMATEX_ROOT = root;

async function step(name, work) {
  const start = Date.now();
  await work();
  console.log(`  ${name}, ${((Date.now() - start) / 1000).toFixed(0)} s`);
}

await step('kernels', () => buildKernels());
await step('command line and server', async () => {
  await buildNode();
  await bundle('server/main.ts');
});
await step('workers and the demo’s data', buildPublic);
// In a process of its own: it ends with its workers.
await step('pictures of the shelf', async () => execFileSync(process.execPath, [await bundle('scripts/thumbs.ts')], { stdio: 'inherit' }));
await step('page', () => exportPage());
