// Writes src/ui/kit/icons.json: the paths of the icons that are used, out of @mdi/js. Run after adding a name: node scripts/icons.mjs
import { writeFileSync } from 'node:fs';

const names = [
  'account-search-outline',
  'arrow-left',
  'check',
  'checkbox-multiple-marked-outline',
  'chevron-left',
  'chevron-right',
  'close',
  'content-copy',
  'content-paste',
  'dice-5-outline',
  'download',
  'eye-off-outline',
  'eye-outline',
  'eyedropper',
  'gesture-tap',
  'help',
  'history',
  'image-outline',
  'image-plus',
  'layers-plus',
  'lock-open-variant-outline',
  'lock-outline',
  'magnify',
  'redo',
  'share-variant-outline',
  'undo',
  'view-grid-outline',
  'white-balance-sunny',
];
const mdi = await import('@mdi/js');
const keyOf = (name) => `mdi${name.replace(/(^|-)([a-z0-9])/g, (_all, _dash, letter) => letter.toUpperCase())}`;
const paths = Object.fromEntries(names.map((name) => [name, mdi[keyOf(name)]]));
writeFileSync(new URL('../src/ui/kit/icons.json', import.meta.url), `${JSON.stringify(paths, null, 2)}\n`);
