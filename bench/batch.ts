import { execFileSync } from 'node:child_process';
import { linkSync, mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { root } from '../src/engine/node';
import { line, spin } from './probe';
import { scene } from './stack';

/** A folder of so many photos of 12 MP, all of one file. */
async function photos(count: number): Promise<string> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bench-'));
  const one = path.join(folder, 'one.jpg');
  await sharp(Buffer.from(scene(4000, 3000)), { raw: { width: 4000, height: 3000, channels: 4 } })
    .jpeg({ quality: 90 })
    .toFile(one);
  mkdirSync(path.join(folder, 'photos'));
  for (let i = 0; i < count; i++) linkSync(one, path.join(folder, 'photos', `${String(i).padStart(3, '0')}.jpg`));
  return folder;
}

const coats = ['paper.aged', 'cracks.craquelure', 'wear.film'].map((id, i) => ({
  source: { kind: 'material', id, seed: i },
  blend: 'multiply',
  strength: 0.5,
}));

/** Runs a batch: its whole time in ms, and the memory of its process in MB after each photo. */
function run(folder: string, workers: number): { time: number; memory: number[] } {
  writeFileSync(path.join(folder, 'look.json'), JSON.stringify({ dermatex: 1, coats }));
  const script = path.join(folder, 'watched.mjs');
  const main = path.join(root, 'build/cli-main.mjs');
  const log = 'const log = console.log; console.log = (text) => log(`${Math.round(process.memoryUsage().rss / 2 ** 20)} MB ${text}`);';
  writeFileSync(script, `${log} await import(${JSON.stringify(main)});`);
  const started = performance.now();
  const args = [
    script,
    'batch',
    '--recipe',
    path.join(folder, 'look.json'),
    '--out',
    path.join(folder, `out-${workers}`),
    '--workers',
    String(workers),
  ];
  const out = execFileSync(process.execPath, [...args, path.join(folder, 'photos')], {
    encoding: 'utf8',
    env: { ...process.env, DERMATEX_ROOT: root },
  });
  return { time: performance.now() - started, memory: [...out.matchAll(/^(\d+) MB \d+\//gm)].map(([, mb]) => Number(mb)) };
}

/** Photos of 12 MP on one worker and on two, in one run. */
export async function batchSpeed(): Promise<void> {
  const COUNT = 24;
  const folder = await photos(COUNT);
  const [one, two] = [run(folder, 1), run(folder, 2)];
  line('batch of 24 photos of 12 MP, 1 worker', `${(one.time / COUNT / 1000).toFixed(2)} s a photo`, spin());
  line('the same, 2 workers', `${(two.time / COUNT / 1000).toFixed(2)} s a photo`, spin());
  line('as fast on two as on one (goal 1.8)', `${(one.time / two.time).toFixed(2)} ×`, spin());
}

/** Two hundred photos: the memory of the process must not grow from the tenth to the last. */
export async function batchMemory(): Promise<void> {
  const { time, memory } = run(await photos(200), 2);
  line('batch of 200 photos of 12 MP', `${(time / 1000).toFixed(0)} s`, spin());
  const most = (from: number, to: number) => Math.max(...memory.slice(from, to));
  line('its memory: photos 1 to 10, 11 to 100, 101 to 200, at most', `${most(0, 10)}, ${most(10, 100)}, ${most(100, 200)} MB`, spin());
}
