import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { root } from '../src/engine/node';
import { scene } from './stack';
import { line, spin } from './probe';

/** Peak memory of the command line exporting 24 MP with five coats, read from the kernel's own account of the process. */
export async function exportMemory(): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bench-'));
  const photo = path.join(folder, 'photo.jpg');
  await sharp(Buffer.from(scene(6000, 4000)), { raw: { width: 6000, height: 4000, channels: 4 } })
    .jpeg({ quality: 90 })
    .toFile(photo);
  const ids = ['paper.cold-press', 'paper.aged', 'cloth.canvas', 'cracks.craquelure', 'wear.film'];
  const recipe = path.join(folder, 'five.json');
  writeFileSync(
    recipe,
    JSON.stringify({ dermatex: 1, coats: ids.map((id, i) => ({ source: { kind: 'material', id, seed: i }, blend: 'multiply', strength: 0.5 })) }),
  );
  // A file rather than -e: worker threads inherit the flags of their process.
  const script = path.join(folder, 'peak.mjs');
  const main = path.join(root, 'build/cli-main.mjs');
  writeFileSync(script, `process.on('exit', () => console.log('PEAK ' + process.resourceUsage().maxRSS)); await import(${JSON.stringify(main)});`);
  const started = performance.now();
  const out = execFileSync(process.execPath, [script, 'render', '--photo', photo, '--recipe', recipe, '--out', path.join(folder, 'out.jpg')], {
    encoding: 'utf8',
    env: { ...process.env, DERMATEX_ROOT: root },
  });
  const peak = Number(/PEAK (\d+)/.exec(out)?.[1]) / 1024;
  line('export of 24 MP with 5 coats, peak of the process (goal 700)', `${peak.toFixed(0)} MB`, spin());
  line('the same, whole time with materials, decode and encode', `${(performance.now() - started).toFixed(0)} ms`, spin());
}
