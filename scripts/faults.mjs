// npm run faults: a campaign of faults against the built application (npm run build or demo beforehand).
import { ensureChromium, ensureInstalled } from './install.mjs';

ensureInstalled();
process.env.CHROMIUM ??= ensureChromium();
const { bundle, root } = await import('./run-ts.mjs');
process.env.DERMATEX_ROOT = root;
await import(await bundle('faults/main.ts'));
