// npm run browsers: the first journey in Chromium (with shared and with private memory), Firefox ESR and WebKitGTK, with times beside each other.
// --only=NAME runs the browsers whose name begins so.
import { serve } from '../scripts/serve.mjs';
import { spin } from '../scripts/spin.mjs';
import { chromium, firefox, webkit, type Driver } from './drivers';
import { journey, type Journey } from './journey';

const PORT = 4388;
const only = process.argv
  .find((a) => a.startsWith('--only='))
  ?.split('=')[1]
  .toLowerCase();
/** Private memory is at most this much slower than shared at the first picture. */
const MOST_SLOWER = 1.5;
/** Most of a step of a drag, in ms. */
const MOST_DRAG = 100;
/** Browsers decode JPEG a little differently: levels that a mean colour may be apart. */
const MOST_APART = 1;

const browsers: [string, () => Promise<Driver>][] = [
  ['Chromium', () => chromium(true)],
  ['Chromium, private memory', () => chromium(false)],
  ['Firefox ESR', firefox],
  ['WebKitGTK', webkit],
];

const stop = await serve(PORT);
const done: [string, Journey][] = [];
const failures: string[] = [];
for (const [name, start] of browsers) {
  if (only && !name.toLowerCase().startsWith(only)) continue;
  let driver: Driver | undefined;
  try {
    driver = await start();
    console.log(`${driver.name} ${driver.version}, spin probe ${spin().toFixed(0)} ms …`);
    done.push([name, await journey(driver, `http://localhost:${PORT}/`)]);
  } catch (error) {
    failures.push(`${name}: ${(error as Error).message}`);
  } finally {
    await driver?.close().catch(() => undefined);
  }
}
stop();

const rows: [string, (j: Journey) => string][] = [
  ['isolated, shared memory', (j) => `${j.isIsolated ? 'yes' : 'no'}, ${j.isShared ? 'yes' : 'no'}`],
  ['photo to first picture, ms', (j) => j.first.toFixed(0)],
  ['material laid, ms', (j) => j.material.toFixed(0)],
  ['step of a drag, median (95 %), ms', (j) => `${j.drag.toFixed(0)} (${j.dragSlow.toFixed(0)})`],
  ['stroke, after the last point, ms', (j) => j.stroke.toFixed(0)],
  ['faces found, ms', (j) => j.faces.toFixed(0)],
  ['a step undone, ms', (j) => j.undo.toFixed(0)],
  ['export as PNG, ms', (j) => j.exported.toFixed(0)],
  ['reload to the picture, ms', (j) => j.reload.toFixed(0)],
  ['exported', (j) => j.size],
  ['its mean colour', (j) => j.mean.map((v) => v.toFixed(1)).join(' ')],
];
console.log(`\n${''.padEnd(36)}${done.map(([name]) => name.padEnd(26)).join('')}`);
for (const [name, show] of rows) console.log(`${name.padEnd(36)}${done.map(([, j]) => show(j).padEnd(26)).join('')}`);

const byName = new Map(done);
const [shared, own] = [byName.get('Chromium'), byName.get('Chromium, private memory')];
if (shared && own) {
  const ratio = own.first / shared.first;
  console.log(`\nPrivate memory takes ${ratio.toFixed(2)} × as long as shared to the first picture (at most ${MOST_SLOWER}).`);
  if (ratio > MOST_SLOWER) failures.push(`private memory is ${ratio.toFixed(2)} times as slow at the first picture`);
  if (own.isShared) failures.push('the private run had shared memory after all');
}
for (const [name, j] of done) {
  if (j.drag > MOST_DRAG) failures.push(`${name}: a step of a drag takes ${j.drag.toFixed(0)} ms`);
  if (shared && j.mean.some((v, i) => Math.abs(v - shared.mean[i]) > MOST_APART)) failures.push(`${name}: the exported picture has another colour`);
  if (shared && j.size !== shared.size) failures.push(`${name}: the exported picture is ${j.size}`);
}
for (const failure of failures) console.log(`FAILED  ${failure}`);
process.exit(failures.length > 0 ? 1 : 0);
