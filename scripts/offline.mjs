// The service worker: bundled with the list of all files of the page and their SHA-256. The version is the hash of that list.
import { build } from 'esbuild';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { root } from './run-ts.mjs';

const hash = (bytes) => createHash('sha256').update(bytes).digest('hex');

/** Files that the server gives only compressed, or that no page asks for. */
const LEFT_OUT = /\.(br|gz)$|^metadata\.json$|^sw\.js$/;

/** @param dist - The folder of the page's files. */
export async function writeServiceWorker(dist = path.join(root, 'dist')) {
  const files = readdirSync(dist, { recursive: true })
    .filter((file) => statSync(path.join(dist, file)).isFile() && !LEFT_OUT.test(file))
    .sort();
  const hashes = Object.fromEntries(files.map((file) => [`/${file.split(path.sep).join('/')}`, hash(readFileSync(path.join(dist, file)))]));
  await build({
    entryPoints: [path.join(root, 'src/offline/serviceWorker.ts')],
    outfile: path.join(dist, 'sw.js'),
    bundle: true,
    format: 'iife',
    target: 'es2022',
    minify: true,
    logLevel: 'warning',
    define: { VERSION: JSON.stringify(hash(JSON.stringify(hashes)).slice(0, 12)), FILES: JSON.stringify(hashes) },
  });
}
