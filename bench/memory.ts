import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { root } from '../src/engine/node';
import { shippedLooks } from '../src/core/looks';
import { painterly } from './painterly';
import { scene } from './stack';
import { line, spin } from './probe';

/** A photo of 24 MP in a new folder. */
export async function largePhoto(): Promise<{ folder: string; photo: string }> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bench-'));
  const photo = path.join(folder, 'photo.jpg');
  await sharp(Buffer.from(scene(6000, 4000)), { raw: { width: 6000, height: 4000, channels: 4 } })
    .jpeg({ quality: 90 })
    .toFile(photo);
  return { folder, photo };
}

/** What the command line takes to render a recipe: the peak in MB, from the kernel's own account of the process, and all of its time in ms. */
export function rendering({ folder, photo }: { folder: string; photo: string }, recipe: object, more: string[] = []): { peak: number; time: number } {
  const file = path.join(folder, 'recipe.json');
  writeFileSync(file, JSON.stringify(recipe));
  // A file rather than -e: worker threads inherit the flags of their process.
  const script = path.join(folder, 'peak.mjs');
  const main = path.join(root, 'build/cli-main.mjs');
  writeFileSync(script, `process.on('exit', () => console.log('PEAK ' + process.resourceUsage().maxRSS)); await import(${JSON.stringify(main)});`);
  const started = performance.now();
  const out = execFileSync(process.execPath, [script, 'render', '--photo', photo, '--recipe', file, '--out', path.join(folder, 'out.jpg'), ...more], {
    encoding: 'utf8',
    env: { ...process.env, DERMATEX_ROOT: root },
  });
  return { peak: Number(/PEAK (\d+)/.exec(out)?.[1]) / 1024, time: performance.now() - started };
}

/** Peak memory of the command line exporting 24 MP with five coats. */
export async function exportMemory(): Promise<void> {
  const ids = ['paper.cold-press', 'paper.aged', 'cloth.canvas', 'cracks.craquelure', 'wear.film'];
  const coats = ids.map((id, i) => ({ source: { kind: 'material', id, seed: i }, blend: 'multiply', strength: 0.5 }));
  const { peak, time } = rendering(await largePhoto(), { dermatex: 1, coats });
  line('export of 24 MP with 5 coats, peak of the process (goal 700)', `${peak.toFixed(0)} MB`, spin());
  line('the same, whole time with materials, decode and encode', `${time.toFixed(0)} ms`, spin());
}

/** Each painterly look, and patches and flow alone, at 24 MP by the command line: whole time with materials, decode and encode, and the peak. */
export async function looksAtFullSize(): Promise<void> {
  const large = await largePhoto();
  const alone = (kind: string) => ({ dermatex: 1, coats: [{ source: { kind: 'below' }, treatments: [{ kind }] }] });
  for (const kind of ['patches', 'flow']) {
    const { peak } = rendering(large, alone(kind));
    line(`${kind} at 24 MP, peak of the process (goal 700)`, `${peak.toFixed(0)} MB`, spin());
  }
  for (const id of painterly) {
    const { peak, time } = rendering(large, shippedLooks.find((l) => l.id === id)?.recipe as object);
    line(`${id} at 24 MP (goal 45 s); peak`, `${(time / 1000).toFixed(1)} s; ${peak.toFixed(0)} MB`, spin());
  }
}
