// Photographs of real people and things for the tests, from Debian's own packages: NASA's astronaut.png and the US Navy's grace_hopper.jpg are in
// the public domain, coffee.png, chelsea.png and camera.png are CC0 (see the packages' copyright files). They are never committed or shipped.
import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
export const realFolder = path.join(root, 'build/real');
const packages = {
  'python3-skimage': ['astronaut.png', 'coffee.png', 'chelsea.png', 'camera.png'],
  'python-matplotlib-data': ['grace_hopper.jpg'],
};

function find(folder, name) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const file = path.join(folder, entry.name);
    if (entry.isDirectory()) {
      const found = find(file, name);
      if (found) return found;
    } else if (entry.name === name) return file;
  }
  return null;
}

/** Fetches what is missing. @throws Error with one sentence when that cannot be done. */
export function ensureRealPhotos() {
  mkdirSync(realFolder, { recursive: true });
  for (const [name, files] of Object.entries(packages)) {
    if (files.every((f) => existsSync(path.join(realFolder, f)))) continue;
    const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-real-'));
    try {
      const download = () => execFileSync('apt-get', ['download', name], { cwd: folder, stdio: 'ignore' });
      try {
        download();
      } catch {
        execFileSync('apt-get', ['update', '-qq'], { stdio: 'ignore' });
        download();
      }
      const deb = readdirSync(folder).find((f) => f.endsWith('.deb'));
      execFileSync('dpkg', ['-x', path.join(folder, deb), path.join(folder, 'out')], { stdio: 'ignore' });
      for (const file of files) copyFileSync(find(path.join(folder, 'out'), file), path.join(realFolder, file));
    } catch {
      throw new Error(`The tests need photographs from Debian's package ${name}, which apt-get cannot download here.`);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) ensureRealPhotos();
