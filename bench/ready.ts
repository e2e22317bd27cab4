import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { nodeEngine, root } from '../src/engine/node';
import { readySchema } from '../src/core/ready/schema';
import { line, spin, timed } from './probe';
import { scene } from './stack';

/** Every step of readying at once. */
export const fullChain = {
  lens: { k1: -0.06, k2: 0.01, red: 0.4, blue: -0.3, corners: 0.3 },
  perspective: {
    corners: [
      [0.01, 0],
      [0.99, 0.005],
      [1, 1],
      [0, 0.995],
    ],
  },
  crop: { x: 0.03, y: 0.03, w: 0.93, h: 0.92, turn: 1.2 },
  fringe: { amount: 0.5 },
  whiteBalance: { warmth: 0.1, tint: 0.05, paper: 0.1 },
  tone: { exposure: 0.2, contrast: 0.1, shadows: 0.2, highlights: -0.2, fade: 0.1 },
  even: { amount: 0.3 },
  localContrast: { amount: 0.3 },
  levels: { black: 0.02, white: 0.98 },
  curves: {
    all: [
      [0, 0.02],
      [0.5, 0.55],
      [1, 1],
    ],
    blue: [
      [0, 0.03],
      [1, 0.97],
    ],
  },
  colour: { saturation: -0.1, vibrance: 0.2 },
  ranges: { shadowBlue: 0.1, highlightRed: 0.1 },
  hues: [{ hue: 30, saturation: 0.2, turn: 5 }],
  noise: { luma: 0.3, colour: 0.5 },
  spots: [
    { points: [[0.3, 0.3]], size: 40, from: [0.05, 0.02] },
    {
      points: [
        [0.6, 0.7],
        [0.65, 0.72],
      ],
      size: 20,
      from: [-0.05, 0.03],
    },
  ],
};

/** The chain drawn anew at the size of a drag, two workers: the first control of it moves, so that nothing is kept. */
export async function readyDrag(): Promise<void> {
  const [width, height] = [6000, 4000];
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    size: 2,
    decode: async () => ({ width, height, place: async (at) => engine.pool.write(at, scene(width, height)) }),
  });
  const photo = { key: 'k', name: 'k', width, height };
  let turn = 0;
  const region = { x: 0, y: 0, width: 786, height: 520 };
  const draw = (chain: object) => () => {
    const ready = readySchema.parse({ ...chain, tone: { ...fullChain.tone, exposure: 0.2 + 0.001 * ++turn } });
    return engine.draw({ piece: { coats: [], strength: 1, photo, ready }, region, scale: 0.1408 }, (p) => p[0], { quick: true });
  };
  await draw(fullChain)();
  const all = await timed(draw(fullChain), 15);
  line('full ready chain at 0.41 MP of 24 MP, median (goal 60)', `${all.median.toFixed(0)} ms`, all.probe);
  const keys = Object.keys(fullChain).filter((k) => k !== 'crop' && k !== 'tone') as (keyof typeof fullChain)[];
  for (const key of keys) {
    const t = await timed(draw({ ...fullChain, [key]: undefined }), 7);
    line(`  without ${key}`, `${t.median.toFixed(0)} ms`, t.probe);
  }
  engine.pool.close();
}

/** The command line on 24 MP: as it is, and with the full chain. */
export async function readyExport(): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-bench-'));
  const photo = path.join(folder, 'photo.jpg');
  await sharp(Buffer.from(scene(6000, 4000)), { raw: { width: 6000, height: 4000, channels: 4 } })
    .jpeg({ quality: 90 })
    .toFile(photo);
  const main = path.join(root, 'build/cli-main.mjs');
  const run = (name: string, ready: object | undefined) => {
    const recipe = path.join(folder, `${name}.json`);
    writeFileSync(recipe, JSON.stringify({ dermatex: 1, ready, coats: [] }));
    const script = path.join(folder, `${name}.mjs`);
    writeFileSync(script, `process.on('exit', () => console.log('PEAK ' + process.resourceUsage().maxRSS)); await import(${JSON.stringify(main)});`);
    const start = performance.now();
    const out = execFileSync(process.execPath, [script, 'render', '--photo', photo, '--recipe', recipe, '--out', path.join(folder, `${name}.jpg`)], {
      encoding: 'utf8',
      env: { ...process.env, DERMATEX_ROOT: root },
    });
    return { time: performance.now() - start, peak: Number(/PEAK (\d+)/.exec(out)?.[1]) / 1024 };
  };
  const best = (runs: { time: number; peak: number }[]) => runs.sort((a, b) => a.time - b.time)[0];
  const probe = spin();
  const plain = best([1, 2, 3].map(() => run('plain', undefined)));
  const full = best([1, 2, 3].map(() => run('full', fullChain)));
  line('24 MP decoded and encoded by the program', `${plain.time.toFixed(0)} ms`, probe);
  line('24 MP with the full ready chain', `${full.time.toFixed(0)} ms`, probe);
  line('ratio (goal at most 2.5 ×)', `${(full.time / plain.time).toFixed(2)} ×`, probe);
  line('peak of the process with it', `${full.peak.toFixed(0)} MB`, probe);
}
