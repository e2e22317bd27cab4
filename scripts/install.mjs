// Installs the packages of the lockfile when they are missing or older than it.
import { execFileSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

export function ensureInstalled() {
  const mark = path.join(root, 'node_modules/.package-lock.json');
  const lock = path.join(root, 'package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(lock).mtimeMs - 1000) return;
  console.error('Installing packages …');
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
}

/** Debian's Chromium: installed where this may be done, else one line says what to install. Returns its path. */
export function ensureChromium() {
  const known = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].filter(Boolean);
  const find = () => known.find((f) => existsSync(f));
  if (find()) return find();
  install('Chromium', ['chromium']);
  if (!find()) {
    console.error('The browser tests need Chromium: install Debian’s package "chromium" or set CHROMIUM to its path.');
    process.exit(1);
  }
  return find();
}

/** GNU parallel, by which a batch is spread, ExifTool, which reads capture data, and transicc, which converts colours; their tests are left out where they cannot be installed. */
export function ensureTools() {
  if (!existsSync('/usr/bin/parallel')) install('GNU parallel', ['parallel']);
  if (!existsSync('/usr/bin/exiftool')) install('ExifTool', ['libimage-exiftool-perl']);
  if (!existsSync('/usr/bin/transicc')) install('transicc', ['liblcms2-utils']);
}

/** Firefox ESR and WebKitGTK for npm run browsers. */
export function ensureBrowsers() {
  const programs = ['/usr/bin/firefox-esr', '/usr/bin/WebKitWebDriver', '/usr/bin/Xvfb'];
  if (!programs.every((f) => existsSync(f))) install('Firefox ESR and WebKitGTK', ['firefox-esr', 'webkit2gtk-driver', 'xvfb']);
  if (programs.every((f) => existsSync(f))) return;
  console.error('Install Debian’s packages firefox-esr, webkit2gtk-driver and xvfb; then try again.');
  process.exit(1);
}

/** Installs Debian's packages where this may be done. */
function install(what, packages) {
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return;
  console.error(`Installing ${what} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  execFileSync('apt-get', ['update', '-qq'], { stdio: 'ignore', env });
  execFileSync('apt-get', ['install', '-y', '-qq', ...packages], { stdio: 'ignore', env });
}
