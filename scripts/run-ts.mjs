// Bundles a TypeScript entry for Node into build/ and returns the file's path. Packages stay outside the bundle.
import { build } from 'esbuild';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

export async function bundle(entry) {
  const outfile = path.join(root, 'build', entry.replace(/[\\/]/g, '-').replace(/\.tsx?$/, '.mjs'));
  await build({
    entryPoints: [path.join(root, entry)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    sourcemap: 'inline',
    logLevel: 'warning',
  });
  return outfile;
}
