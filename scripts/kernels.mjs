// Compiles src/kernels into bindings for TypeScript and two wasm files that differ only in whether their imported memory is shared, and checks that neither
// carries data, globals or a start function: state in the module would be written again by every worker.
import { execFile } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import { promisify } from 'node:util';
import { bindingsOf } from './bindings.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const folder = path.join(root, 'src/kernels');
const outputs = ['public/kernels-shared.wasm', 'public/kernels.wasm'].map((f) => path.join(root, f));

/** TypeScript's view of the kernels. */
const bindings = path.join(root, 'src/core/image/kernels.generated.ts');

/** Compiles when a source is newer than what is there; both variants at once, since each takes half a minute of one core. */
export async function buildKernels({ force = false } = {}) {
  const newest = Math.max(
    ...readdirSync(folder).map((f) => statSync(path.join(folder, f)).mtimeMs),
    ...['kernels.mjs', 'bindings.mjs'].map((f) => statSync(path.join(root, 'scripts', f)).mtimeMs),
  );
  if (!force && [...outputs, bindings].every((f) => existsSync(f) && statSync(f).mtimeMs > newest)) return;
  mkdirSync(path.join(root, 'public'), { recursive: true });
  const asc = path.join(root, 'node_modules/assemblyscript/bin/asc.js');
  const common = [
    'src/kernels/index.ts',
    '-O3',
    '--noAssert',
    '--runtime',
    'stub',
    '--enable',
    'simd',
    '--importMemory',
    '--noExportMemory',
    '--initialMemory',
    '16',
    '--converge',
  ];
  const raw = path.join(root, 'build/bindings');
  mkdirSync(raw, { recursive: true });
  const compile = (...options) => promisify(execFile)(process.execPath, [asc, ...common, '--maximumMemory', '32768', ...options], { cwd: root });
  await Promise.all([
    compile('--enable', 'threads', '--sharedMemory', '-o', outputs[0]),
    compile('--bindings', 'raw', '-o', path.join(raw, 'kernels.wasm')),
  ]);
  copyFileSync(path.join(raw, 'kernels.wasm'), outputs[1]);
  for (const file of outputs) check(file);
  writeFileSync(bindings, bindingsOf(readFileSync(path.join(raw, 'kernels.d.ts'), 'utf8')));
}

/** Section ids of WebAssembly Core 1.0 §5.5: 6 global, 8 start, 11 data. */
function check(file) {
  const bytes = readFileSync(file);
  let p = 8;
  const leb = () => {
    let v = 0;
    for (let s = 0; ; s += 7) {
      const b = bytes[p++];
      v |= (b & 127) << s;
      if (b < 128) return v;
    }
  };
  while (p < bytes.length) {
    const id = bytes[p++];
    const size = leb();
    if (id === 6 || id === 8 || id === 11) throw new Error(`${file} has a section (${id}) that a shared module must not have.`);
    p += size;
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildKernels({ force: process.argv.includes('--force') });
