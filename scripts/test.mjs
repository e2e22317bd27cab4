// npm test: installs what is missing, then lint, types, unit tests, build, browser tests. Ends with one line summed over the runners.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureChromium, ensureInstalled } from './install.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensureInstalled();
const chromium = ensureChromium();
const env = { ...process.env, CI: '1', CHROMIUM: chromium, DERMATEX_ROOT: root, FORCE_COLOR: '0' };
mkdirSync(path.join(root, 'build'), { recursive: true });
const results = (name) => path.join(root, 'build', name);
let passed = 0;
let failed = 0;

function step(name, command, args) {
  console.log(`\n— ${name}`);
  const start = Date.now();
  const { status } = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env });
  console.log(`${name}: ${status === 0 ? 'ok' : 'FAILED'}, ${Math.round((Date.now() - start) / 1000)} s`);
  return status === 0;
}

const bin = (name) => path.join(root, 'node_modules/.bin', name);
const whole = (name, command, args) => {
  if (step(name, command, args)) passed++;
  else failed++;
};

whole('lint', bin('eslint'), ['.', '--max-warnings', '0']);
whole('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
whole('types', bin('tsc'), ['--noEmit']);

rmSync(results('jest.json'), { force: true });
const unit = step('unit tests', bin('jest'), ['--json', `--outputFile=${results('jest.json')}`]);
try {
  const report = JSON.parse(readFileSync(results('jest.json'), 'utf8'));
  passed += report.numPassedTests;
  // A suite that does not even run counts as one failure.
  failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  if (report.numPassedTests === 0) failed++;
} catch {
  if (!unit) failed++;
}

if (step('build', process.execPath, [path.join(root, 'scripts/build.mjs')])) {
  passed++;
  rmSync(results('playwright.json'), { force: true });
  const browser = step('browser tests', bin('playwright'), ['test']);
  try {
    const { stats } = JSON.parse(readFileSync(results('playwright.json'), 'utf8'));
    passed += stats.expected + stats.flaky;
    failed += stats.unexpected;
    if (stats.expected === 0) failed++;
  } catch {
    failed++;
  }
  if (!browser && failed === 0) failed++;
} else failed++;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
