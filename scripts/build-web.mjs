// The page: kernels, the worker bundle, the demo's data, then Expo's static export into dist/.
import { build as esbuild } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import zlib from 'node:zlib';
import { buildKernels } from './kernels.mjs';
import { writeServiceWorker } from './offline.mjs';
import { root } from './run-ts.mjs';

const fonts = [
  'mukta-latin-400',
  'mukta-latin-500',
  'alegreya-latin-500',
  'mukta-latin-ext-400',
  'mukta-latin-ext-500',
  'alegreya-latin-ext-500',
].map((name) => `${name}-normal.woff2`);

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
      external: ['crypto', 'fs', 'path', 'os', 'util', 'worker_threads', 'perf_hooks', 'string_decoder', 'module'],
    });
  await worker('src/engine/browser.worker.ts', 'engine.worker.js');
  await worker('src/engine/finder/finder.worker.ts', 'finder.worker.js');
  // Models, and the files of the backend that they run on.
  cpSync(path.join(root, 'models'), path.join(root, 'public/finder'), { recursive: true });
  const backend = path.join(root, 'node_modules/@tensorflow/tfjs-backend-wasm/dist');
  for (const file of ['tfjs-backend-wasm.wasm', 'tfjs-backend-wasm-simd.wasm'])
    cpSync(path.join(backend, file), path.join(root, 'public/finder', file));
  // Converts embedded colour profiles.
  cpSync(path.join(root, 'node_modules/lcms-wasm/dist/lcms.wasm'), path.join(root, 'public/lcms.wasm'));
  mkdirSync(path.join(root, 'public/fonts'), { recursive: true });
  for (const font of fonts)
    cpSync(path.join(root, 'node_modules/@fontsource', font.split('-')[0], 'files', font), path.join(root, 'public/fonts', font));
  // Pictures of the guide in the app.
  mkdirSync(path.join(root, 'public/guide'), { recursive: true });
  for (const shot of ['bench-phone', 'guards-phone', 'where-wide', 'contact-wide'])
    cpSync(path.join(root, `docs/screenshots/${shot}.png`), path.join(root, `public/guide/${shot}.png`));
  await icons();
  mkdirSync(path.join(root, 'public/demo'), { recursive: true });
  cpSync(path.join(root, 'demo/photos'), path.join(root, 'public/demo/photos'), { recursive: true });
  cpSync(path.join(root, 'demo/pieces'), path.join(root, 'public/demo/pieces'), { recursive: true });
}

/** The mark in the sizes that an installed application needs; the maskable one has room around it to be cut. */
async function icons() {
  mkdirSync(path.join(root, 'public/icons'), { recursive: true });
  const mark = path.join(root, 'public/favicon.svg');
  const at = (side) =>
    sharp(mark, { density: 72 * 16 })
      .resize(side, side)
      .png();
  for (const side of [192, 512]) await at(side).toFile(path.join(root, `public/icons/icon-${side}.png`));
  const inner = await at(384).toBuffer();
  await sharp({ create: { width: 512, height: 512, channels: 3, background: '#b1b1b1' } })
    .composite([{ input: inner, left: 64, top: 64 }])
    .png()
    .toFile(path.join(root, 'public/icons/icon-maskable-512.png'));
}

const { constants } = zlib;
const brotli = promisify(zlib.brotliCompress);
const gzip = promisify(zlib.gzip);

export const expoEnvironment = { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', CI: '1' };

export function exportPage() {
  const expo = path.join(root, 'node_modules/expo/bin/cli');
  execFileSync(process.execPath, [expo, 'export', '--platform', 'web'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'], env: expoEnvironment });
  preload();
  return writeServiceWorker().then(compress);
}

/** Fonts, kernels and the worker are fetched beside the script instead of after it has run. */
function preload() {
  const page = path.join(root, 'dist/index.html');
  const links = [
    ...fonts.slice(0, 3).map((f) => `<link rel="preload" href="/fonts/${f}" as="font" type="font/woff2" crossorigin />`),
    '<link rel="preload" href="/kernels-shared.wasm" as="fetch" crossorigin />',
    '<link rel="modulepreload" href="/engine.worker.js" as="worker" />',
  ];
  writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `    ${links.join('\n    ')}\n  </head>`));
}

/** What is worth compressing: pictures and fonts are already. */
const PACKED = /\.(js|css|html|wasm|svg|json|webmanifest)$/;

/** Writes every file that shrinks beside itself as brotli and gzip, so that the server need not do it at each request. */
async function compress() {
  const dist = path.join(root, 'dist');
  const files = readdirSync(dist, { recursive: true }).filter((f) => PACKED.test(f));
  await Promise.all(
    files.map(async (f) => {
      const file = path.join(dist, f);
      const bytes = readFileSync(file);
      if (bytes.length < 1024) return;
      const [br, gz] = await Promise.all([brotli(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }), gzip(bytes, { level: 9 })]);
      writeFileSync(`${file}.br`, br);
      writeFileSync(`${file}.gz`, gz);
    }),
  );
}
