// The page: kernels, the worker bundle, the demo's data, then Expo's static export into dist/.
import { build as esbuild } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { buildKernels } from './kernels.mjs';
import { root } from './run-ts.mjs';

export async function buildPublic() {
  await buildKernels();
  const worker = (entry, name) =>
    esbuild({
      entryPoints: [path.join(root, entry)],
      outfile: path.join(root, 'public', name),
      bundle: true,
      format: 'esm',
      target: 'es2022',
      minify: true,
      logLevel: 'warning',
      // TensorFlow.js asks for these only in Node.
      external: ['crypto', 'fs', 'path', 'os', 'util', 'worker_threads', 'perf_hooks', 'string_decoder'],
    });
  await worker('src/engine/browser.worker.ts', 'engine.worker.js');
  await worker('src/engine/finder/finder.worker.ts', 'finder.worker.js');
  // Models, and the files of the backend that they run on.
  cpSync(path.join(root, 'models'), path.join(root, 'public/finder'), { recursive: true });
  const backend = path.join(root, 'node_modules/@tensorflow/tfjs-backend-wasm/dist');
  for (const file of ['tfjs-backend-wasm.wasm', 'tfjs-backend-wasm-simd.wasm'])
    cpSync(path.join(backend, file), path.join(root, 'public/finder', file));
  mkdirSync(path.join(root, 'public/demo'), { recursive: true });
  cpSync(path.join(root, 'demo/photos'), path.join(root, 'public/demo/photos'), { recursive: true });
  cpSync(path.join(root, 'demo/pieces'), path.join(root, 'public/demo/pieces'), { recursive: true });
}

export const expoEnvironment = { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', CI: '1' };

export function exportPage() {
  const expo = path.join(root, 'node_modules/expo/bin/cli');
  execFileSync(process.execPath, [expo, 'export', '--platform', 'web'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'], env: expoEnvironment });
  preload();
}

/** Fonts, kernels and the worker are fetched beside the script instead of after it has run. */
function preload() {
  const page = path.join(root, 'dist/index.html');
  const fonts = readdirSync(path.join(root, 'dist/assets'), { recursive: true })
    .map((f) => `/assets/${f.split(path.sep).join('/')}`)
    .filter((f) => f.endsWith('.ttf'));
  const links = [
    ...fonts.map((f) => `<link rel="preload" href="${f}" as="font" type="font/ttf" crossorigin />`),
    '<link rel="preload" href="/kernels-shared.wasm" as="fetch" crossorigin />',
    '<link rel="modulepreload" href="/engine.worker.js" as="worker" />',
  ];
  writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `    ${links.join('\n    ')}\n  </head>`));
}
