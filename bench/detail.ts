import { writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { testMachine } from '../src/testing/machine';
import { PAGE } from '../src/core/image/machine';
import { materialById, materials } from '../src/core/materials';
import { Drafts, DRAFT_WORK } from '../src/core/materials/drafts';
import { workingMemory } from '../src/core/materials/generate';
import { WINDOW } from '../src/core/materials/windows';
import { largePhoto, rendering } from './memory';
import { withPage, openFile } from './page';
import { line, spin } from './probe';

// What full detail costs: materials as fine as a photo of 24 or 100 megapixels.

const five = ['paper.cold-press', 'paper.aged', 'cloth.canvas', 'cracks.craquelure', 'wear.film'].map((id, i) => ({
  source: { kind: 'material', id, seed: i },
  blend: 'multiply',
  strength: 0.5,
}));
const three = [
  { source: { kind: 'material', id: 'paper.cold-press', seed: 0 }, blend: 'multiply', strength: 0.5 },
  { source: { kind: 'material', id: 'cloth.linen', seed: 1 }, blend: 'overlay', strength: 0.5 },
  { source: { kind: 'material', id: 'wear.film', seed: 4 }, blend: 'screen', strength: 0.5 },
];

const MEBIBYTES = 1600;
const SHEET = 3072;

/** A window of a sheet beside the whole of it, by the time a pixel takes on one core, for each material. */
export async function windowCost(): Promise<void> {
  const machine = testMachine(MEBIBYTES + 1);
  const memory = workingMemory(PAGE, MEBIBYTES * 2 ** 20);
  const drafts = new Drafts(machine);
  const only = process.argv[3]?.split(',');
  const timed = (work: () => void, rounds = 1) => {
    let best = Infinity;
    for (let i = 0; i < rounds; i++) {
      const begun = performance.now();
      work();
      best = Math.min(best, performance.now() - begun);
    }
    return best;
  };
  let [most, total, count] = [0, 0, 0];
  for (const { id, shape } of materials) {
    if (only && !only.includes(id)) continue;
    const aspect = shape === 'piece' ? 1.5 : 1;
    const order = { id, seed: 3, params: {}, aspect, size: SHEET };
    const taken: number[] = [];
    const take = (bytes: number) => {
      const at = memory.take(bytes);
      taken.push(at);
      return { at, bytes };
    };
    const draft = take(DRAFT_WORK);
    const cost = drafts.cost(order, draft);
    const coarse = take(cost.coarse);
    const work = take(Math.max(cost.work, cost.coarseWork));
    drafts.coarse(order, coarse.at, work);
    const target = take(SHEET * SHEET * 4);
    const window =
      timed(() => drafts.window(order, { x: 1400, y: 700, width: WINDOW, height: WINDOW }, coarse.at, target.at, WINDOW, work), 3) / WINDOW ** 2;
    memory.give(work.at);
    taken.splice(taken.indexOf(work.at), 1);
    const [width, height] = [SHEET, Math.ceil(SHEET / aspect / 16) * 16];
    const whole = { id, seed: 3, params: {}, width, height, aspect };
    const room = take(drafts.wholeCost(whole, draft));
    const all = timed(() => drafts.whole(whole, target.at, room)) / (width * height);
    for (const at of taken) memory.give(at);
    const ratio = window / all;
    [most, total, count] = [Math.max(most, ratio), total + ratio, count + 1];
    line(`${materialById(id).id}: a window, ms a megapixel; by the whole`, `${(window * 1e6).toFixed(0)}; ${ratio.toFixed(2)}`, spin());
  }
  line('most (goal 1.6); mean', `${most.toFixed(2)}; ${(total / count).toFixed(2)}`, spin());
}

/** 24 megapixels with five coats of materials, with full detail and without; 100 megapixels with three. By the command line, photo to file. */
export async function detailExport(): Promise<void> {
  const large = await largePhoto();
  for (const [name, more] of [
    ['with full detail (goal 35 s, 800 MB)', []],
    ['without', ['--no-detail']],
  ] as const) {
    const { peak, time } = rendering(large, { dermatex: 1, coats: five }, [...more]);
    line(`24 MP with 5 coats ${name}`, `${(time / 1000).toFixed(1)} s; ${peak.toFixed(0)} MB`, spin());
  }
  const huge = { folder: large.folder, photo: path.join(large.folder, 'huge.jpg') };
  writeFileSync(huge.photo, await sharp(large.photo).resize(12000, 8000, { kernel: 'nearest' }).jpeg({ quality: 90 }).toBuffer());
  const { peak, time } = rendering(huge, { dermatex: 1, coats: three });
  line('100 MP with 3 coats, full detail (goal 1200 MB)', `${(time / 1000).toFixed(1)} s; ${peak.toFixed(0)} MB`, spin());
}

/** A view of about half a megapixel at 100 % of 24 MP with three coats: from the end of a pan to the picture in full detail, five times. */
export async function detailView(): Promise<void> {
  const { photo } = await largePhoto();
  await withPage(async (page) => {
    await openFile(page, photo);
    for (const name of ['Cold-press paper', 'Raw linen', 'Scratches and dust']) {
      await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
      await page.getByRole('button', { name, exact: true }).first().click();
      await page.getByRole('button', { name: 'Use it' }).click();
      await page.waitForTimeout(1500);
    }
    await page.getByRole('button', { name: '100 %', exact: true }).click();
    const isFull = () => (document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement).dataset.detail === 'full';
    const isCoarse = () => (document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement).dataset.detail !== 'full';
    await page.waitForFunction(isFull, undefined, { timeout: 60_000 });
    const box = (await page.getByTestId('picture').boundingBox()) as { x: number; y: number; width: number; height: number };
    const times: number[] = [];
    for (let i = 0; i < 5; i++) {
      const [x, y] = [box.x + box.width * 0.7, box.y + box.height * 0.6];
      await page.mouse.move(x, y);
      await page.mouse.down();
      await page.mouse.move(x - 180, y - 120, { steps: 6 });
      await page.waitForFunction(isCoarse, undefined, { polling: 20 });
      await page.mouse.up();
      const begun = performance.now();
      await page.waitForFunction(isFull, undefined, { timeout: 60_000, polling: 20 });
      times.push(performance.now() - begun);
    }
    times.sort((a, b) => a - b);
    line(
      `view of ${((box.width * box.height) / 1e6).toFixed(2)} MP at 100 % with 3 coats, pan to full detail (goal 1200)`,
      `${times[2].toFixed(0)} ms`,
      spin(),
    );
  });
}
