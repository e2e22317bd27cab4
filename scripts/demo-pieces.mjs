// Renders the pictures of the sample pieces' cards with the command line's engine.
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
// A recipe's pictures lie beside it.
const work = mkdtempSync(path.join(os.tmpdir(), 'dermatex-demo-'));
copyFileSync(path.join(root, 'demo/photos/sky.jpg'), path.join(work, 'sky.jpg'));
for (const [piece, photo, scale] of [
  ['keeper', 'keeper', 0.32],
  ['dusk', 'light-at-dusk', 0.32],
  ['wall', 'harbour-wall', 0.3],
  ['officer', 'signal-officer', 0.32],
  ['lamp', 'lamp-and-lemons', 0.45],
  ['poster', 'keeper', 0.32],
  ['washed', 'light-at-dusk', 0.32],
  ['oiled', 'keeper', 0.32],
  ['inked', 'signal-officer', 0.32],
  ['cracked', 'signal-officer', 0.32],
  ['painted', 'light-at-dusk', 0.32],
  ['faded', 'lamp-and-lemons', 0.45],
  ['grained', 'keeper', 0.32],
  ['worn', 'light-at-dusk', 0.32],
  ['retouched', 'signal-officer', 0.32],
  ['porcelain', 'keeper', 0.32],
  ['mural', 'keeper', 0.32],
]) {
  const file = (folder, name) => path.join(root, 'demo', folder, name);
  const recipe = path.join(work, `${piece}.json`);
  writeFileSync(recipe, readFileSync(file('pieces', `${piece}.json`), 'utf8').replace('../photos/sky.jpg', 'sky.jpg'));
  execFileSync(
    process.execPath,
    [
      path.join(root, 'scripts/dermatex.mjs'),
      'render',
      '--photo',
      file('photos', `${photo}.jpg`),
      '--recipe',
      recipe,
      '--out',
      file('pieces', `${piece}.jpg`),
      '--scale',
      String(scale),
    ],
    { stdio: 'inherit' },
  );
}
