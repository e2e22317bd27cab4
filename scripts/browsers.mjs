// npm run browsers: the first journey in other browsers too (npm run build or demo beforehand); Debian's packages are installed where this may be done.
import { ensureBrowsers, ensureChromium, ensureInstalled } from './install.mjs';

ensureInstalled();
process.env.CHROMIUM ??= ensureChromium();
ensureBrowsers();
const { bundle, root } = await import('./run-ts.mjs');
process.env.DERMATEX_ROOT = root;
await import(await bundle('browsers/main.ts'));
