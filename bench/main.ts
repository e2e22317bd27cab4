// npm run bench: speed and memory as ratios in one run, with a spin probe beside every timing (the machine is shared).
import { gaussian } from './blur';
import { batchMemory, batchSpeed } from './batch';
import { formDrags, skinExport, skinFirst } from './form';
import { brush, finding, unchangedReadout } from './guards';
import { detailExport, detailView, windowCost } from './detail';
import { coldPage, contactSheet, drag, looksSheet, shelf } from './page';
import { exportMemory, looksAtFullSize } from './memory';
import { fiveCoats, perMegapixel, standardStack } from './stack';
import { materialTimes } from './materials';
import { painterlyLooks, simplifying } from './painterly';
import { fineness, reducedExports } from './sheets';
import { readyDrag, readyExport } from './ready';

const wanted = process.argv[2];
const parts: [string, () => Promise<void>][] = [
  ['stack', standardStack],
  ['megapixels', perMegapixel],
  ['five', fiveCoats],
  ['materials', materialTimes],
  ['windows', windowCost],
  ['detail', detailExport],
  ['detail-view', detailView],
  ['fineness', fineness],
  ['reduced', reducedExports],
  ['ready', readyDrag],
  ['ready-export', readyExport],
  ['simplifying', simplifying],
  ['looks', painterlyLooks],
  ['memory', exportMemory],
  ['looks-24', looksAtFullSize],
  ['gaussian', gaussian],
  ['drag', drag],
  ['contact', contactSheet],
  ['looks-sheet', looksSheet],
  ['shelf', shelf],
  ['find', finding],
  ['kept', unchangedReadout],
  ['form', formDrags],
  ['skin', skinFirst],
  ['skin-24', skinExport],
  ['batch', batchSpeed],
  ['batch-200', batchMemory],
  ['brush', brush],
  ['cold', coldPage],
];
for (const [name, run] of parts) {
  if (wanted && wanted !== name) continue;
  console.log(`\n— ${name}`);
  await run();
}
process.exit(0);
