// Compiles src/kernels into two wasm files that differ only in whether their imported memory is shared, and checks that neither
// carries data, globals or a start function: state in the module would be written again by every worker.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, statSync, existsSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const folder = path.join(root, 'src/kernels');
const outputs = ['public/kernels-shared.wasm', 'public/kernels.wasm'].map((f) => path.join(root, f));

export function buildKernels({ force = false } = {}) {
  const newest = Math.max(
    ...readdirSync(folder).map((f) => statSync(path.join(folder, f)).mtimeMs),
    statSync(fileURLToPath(import.meta.url)).mtimeMs,
  );
  if (!force && outputs.every((f) => existsSync(f) && statSync(f).mtimeMs > newest)) return;
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
  execFileSync(process.execPath, [asc, ...common, '--enable', 'threads', '--sharedMemory', '--maximumMemory', '32768', '-o', outputs[0]], {
    cwd: root,
    stdio: 'inherit',
  });
  execFileSync(process.execPath, [asc, ...common, '--maximumMemory', '32768', '-o', outputs[1]], { cwd: root, stdio: 'inherit' });
  for (const file of outputs) check(file);
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

if (process.argv[1] === fileURLToPath(import.meta.url)) buildKernels({ force: process.argv.includes('--force') });
