// The built page's server in a process of its own, for tests, measurements and screenshots (npm run build beforehand).
import { spawn } from 'node:child_process';
import path from 'node:path';
import { root } from './run-ts.mjs';

/** Starts the server on a port. Resolves what stops it; rejects when it does not start, because the port is taken for instance. */
export function serve(port) {
  const server = spawn(process.execPath, [path.join(root, 'build/server-main.mjs'), String(port)], { env: { ...process.env, DERMATEX_ROOT: root } });
  return new Promise((resolve, reject) => {
    const said = [];
    server.stderr.on('data', (text) => said.push(text));
    server.stdout.once('data', () => resolve(() => void server.kill()));
    server.once('exit', () => reject(new Error(`The server did not start: ${said.join('').trim() || 'it says nothing'}`)));
  });
}
