// npm test: installs what is missing; builds while lint and types run; then unit tests and browser tests, each on all cores. Ends with one line
// summed over the runners.
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureChromium, ensureInstalled, ensureTools } from './install.mjs';
import { buildKernels } from './kernels.mjs';
import { browserTimes, printSlowest, unitTimes } from './slowest.mjs';
import { spin } from './spin.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensureInstalled();
ensureTools();
const env = { ...process.env, CI: '1', CHROMIUM: ensureChromium(), DERMATEX_ROOT: root, FORCE_COLOR: '0' };
mkdirSync(path.join(root, 'build'), { recursive: true });
const bin = (name) => path.join(root, 'node_modules/.bin', name);
const result = (name) => path.join(root, 'build', name);
const started = Date.now();
let passed = 0;
let failed = 0;

/** Runs a command and prints what it said once it has ended. Resolves true when it succeeded. */
function step(name, command, args, live = false) {
  const start = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], env });
    const said = [];
    const hear = (chunk) => (live ? process.stdout.write(chunk) : said.push(chunk));
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('close', (status) => {
      const text = Buffer.concat(said).toString().trim();
      console.log(`\n— ${name}: ${status === 0 ? 'ok' : 'FAILED'}, ${Math.round((Date.now() - start) / 1000)} s${text ? `\n${text}` : ''}`);
      resolve(status === 0);
    });
  });
}

const whole = async (name, command, args) => {
  if (await step(name, command, args)) passed++;
  else failed++;
};

/** Adds a runner's counts from the report that it wrote; a runner that wrote none, or ran nothing, has failed. */
function count(file, read, succeeded) {
  try {
    const { good, bad } = read(JSON.parse(readFileSync(result(file), 'utf8')));
    passed += good;
    failed += bad + (good === 0 || (!succeeded && bad === 0) ? 1 : 0);
  } catch {
    failed++;
  }
}

async function unitTests() {
  const jest = [bin('jest'), '--maxWorkers=100%', '--json', `--outputFile=${result('jest.json')}`];
  const ok = await step('unit tests', process.execPath, jest);
  // A suite that does not even run counts as one failure.
  count('jest.json', (r) => ({ good: r.numPassedTests, bad: r.numFailedTests + r.numRuntimeErrorTestSuites }), ok);
}

async function browserTests() {
  const ok = await step('browser tests', bin('playwright'), ['test'], true);
  count('playwright.json', ({ stats }) => ({ good: stats.expected + stats.flaky, bad: stats.unexpected }), ok);
}

console.log(`The machine's spin probe: ${spin().toFixed(0)} ms (26 on a quiet one)`);
for (const file of ['jest.json', 'playwright.json']) rmSync(result(file), { force: true });
// Their bindings are part of what types and lint look at.
await buildKernels();
const [built] = await Promise.all([
  step('build', process.execPath, [path.join(root, 'scripts/build.mjs')]),
  // One after another on the other core.
  whole('types', bin('tsc'), ['--noEmit'])
    .then(() => whole('lint', bin('eslint'), ['.', '--max-warnings', '0', '--cache', '--cache-location', 'build/eslint']))
    .then(() => whole('arrows between folders', bin('depcruise'), ['src', 'app', 'server', 'cli', '--config', '.dependency-cruiser.cjs']))
    .then(() => whole('format', bin('prettier'), ['--check', '--log-level', 'warn', '--cache', '--cache-location', 'build/prettier', '.'])),
]);
if (built) passed++;
else failed++;
await unitTests();
if (built) await browserTests();
// A short cut of the campaign of faults; npm run faults is the whole.
if (built) await whole('faults', process.execPath, [path.join(root, 'scripts/faults.mjs'), '--short']);
printSlowest([...unitTimes(result('jest.json')), ...browserTimes(result('playwright.json'))]);
console.log(`\nAll of it: ${Math.round((Date.now() - started) / 1000)} s; spin probe ${spin().toFixed(0)} ms`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
