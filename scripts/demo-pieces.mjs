// Renders the pictures of the sample pieces' cards with the command line's engine.
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
for (const [piece, photo, scale] of [
  ['keeper', 'keeper', 0.32],
  ['dusk', 'light-at-dusk', 0.32],
  ['wall', 'harbour-wall', 0.3],
  ['officer', 'signal-officer', 0.32],
  ['lamp', 'lamp-and-lemons', 0.45],
  ['poster', 'keeper', 0.32],
]) {
  const file = (folder, name) => path.join(root, 'demo', folder, name);
  execFileSync(
    process.execPath,
    [
      path.join(root, 'scripts/dermatex.mjs'),
      'render',
      '--photo',
      file('photos', `${photo}.jpg`),
      '--recipe',
      file('pieces', `${piece}.json`),
      '--out',
      file('pieces', `${piece}.jpg`),
      '--scale',
      String(scale),
    ],
    { stdio: 'inherit' },
  );
}
