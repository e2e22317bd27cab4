#!/usr/bin/env node
// The command line: builds what it needs, then runs it.
import { spawnSync } from 'node:child_process';
import { ensureInstalled } from './install.mjs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensureInstalled();
const { buildNode } = await import('./build-node.mjs');
const main = await buildNode();
const { status } = spawnSync(process.execPath, ['--enable-source-maps', main, ...process.argv.slice(2)], {
  stdio: 'inherit',
  // npm runs scripts in the project's folder: files are named from where it was called.
  cwd: process.env.INIT_CWD ?? process.cwd(),
  env: { ...process.env, DERMATEX_ROOT: root },
});
process.exit(status ?? 1);
