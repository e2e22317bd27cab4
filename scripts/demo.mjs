// npm run demo: installs what is missing, builds, serves the application with its sample pieces and prints the address.
// A port may be given: npm run demo -- 8080
import { spawnSync, spawn } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureInstalled } from './install.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensureInstalled();
console.log('Building (under two minutes the first time) …');
const built = spawnSync(process.execPath, [path.join(root, 'scripts/build.mjs')], { cwd: root, stdio: 'inherit' });
if (built.status !== 0) process.exit(built.status ?? 1);
const server = spawn(process.execPath, [path.join(root, 'build/server-main.mjs'), ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, DERMATEX_ROOT: root },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
