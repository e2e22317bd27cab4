// npm run check: lint and types, and the unit tests that lie beside what has changed since the last commit. For use while working; under a minute.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { unitTimes } from './slowest.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const bin = (name) => path.join(root, 'node_modules/.bin', name);
const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean);
const changed = [...new Set([...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')])]
  .filter((file) => /\.(ts|tsx|mjs|js|cjs)$/.test(file))
  .filter((file) => existsSync(path.join(root, file)));

function run(name, command, args) {
  const start = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
    child.on('close', (status) => {
      console.log(`${status === 0 ? 'ok    ' : 'FAILED'}  ${name}, ${((Date.now() - start) / 1000).toFixed(0)} s`);
      if (status !== 0) console.log(said.trim());
      resolve(status === 0);
    });
  });
}

const folders = [...new Set(changed.filter((file) => /^(src|cli|server|demo)\//.test(file)).map((file) => path.dirname(file)))];
/** Test files that took longer than this at the last `npm test`, in seconds, are left to the next one, unless they have changed themselves. */
const LONG = 8;
const slow = unitTimes(path.join(root, 'build/jest.json'))
  .filter(({ name, seconds }) => seconds > LONG && !changed.includes(name))
  .map(({ name }) => `--testPathIgnorePatterns=${name}$`);
// Tests of the same folder, not of those below it. They come first on the command line: what follows an option with several values is taken for another
// of its values.
const tests = folders.map((folder) => `${path.join(root, folder)}/[^/]+\\.(test\\.ts|webtest\\.tsx)$`);
const results = await Promise.all([
  run('types', process.execPath, [path.join(root, 'scripts/types.mjs')]).then(async (ok) => {
    const tested =
      tests.length === 0 ||
      (await run(`unit tests of ${folders.join(', ')}`, bin('jest'), ['--passWithNoTests', ...tests, '--maxWorkers=1', ...slow]));
    return ok && tested;
  }),
  (async () => {
    const style = changed.length === 0 || (await run('format', bin('prettier'), ['--check', '--log-level', 'warn', ...changed]));
    const arrows = await run('arrows between folders', bin('depcruise'), ['src', 'app', 'server', 'cli', '--config', '.dependency-cruiser.cjs']);
    const lint =
      changed.length === 0 || (await run('lint', bin('eslint'), ['--max-warnings', '0', '--cache', '--cache-location', 'build/eslint', ...changed]));
    return style && arrows && lint;
  })(),
]);
process.exit(results.every(Boolean) ? 0 : 1);
