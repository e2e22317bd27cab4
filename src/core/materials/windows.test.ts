import { testMachine } from '@/testing/machine';
import { PAGE } from '../image/machine';
import { materials } from '.';
import { draftOf, drawDraft, workingMemory, type Draft } from './generate';
import type { CoarsePlanes } from './making/evaluate';
import { coarseAt, coarseBytes, drawCoarse, sheetFrame } from './windows';

const MEBIBYTES = 900;
const machine = testMachine(MEBIBYTES + 1);
const memory = workingMemory(PAGE, MEBIBYTES * 2 ** 20);

interface Window {
  x: number;
  y: number;
  side: number;
  bytes: Uint8Array;
}

/** A material, written down and with what its windows need. */
function drafted<T>(
  id: string,
  then: (draft: Draft, window: (size: number, x: number, y: number, side: number) => Window, coarse: CoarsePlanes) => T,
): T {
  const material = materials.find((m) => m.id === id) as (typeof materials)[number];
  const draft = draftOf(machine, memory, { material, params: {}, seed: 3, aspect: material.shape === 'piece' ? 1.5 : 1 });
  const at = memory.take(coarseBytes(draft));
  drawCoarse(draft, machine, memory, at);
  const coarse = coarseAt(draft, at);
  try {
    return then(
      draft,
      (size, x, y, side) => {
        const target = memory.take(side * side * 4);
        drawDraft(draft, { machine, memory, frame: sheetFrame(draft, size), window: { x, y, width: side, height: side }, coarse }, target);
        const bytes = machine.bytes.slice(target, target + side * side * 4);
        memory.give(target);
        return { x, y, side, bytes };
      },
      coarse,
    );
  } finally {
    memory.give(at);
  }
}

describe('windows of a sheet of 8192 pixels', () => {
  it.each(materials.map(({ id, seamless }) => [id, seamless] as const))('join to the byte, and continue where the sheet does: %s', (id, seamless) => {
    drafted(id, (_, window) => {
      const [a, b] = [window(8192, 1237, 331, 144), window(8192, 1301, 299, 144)];
      let differ = 0;
      for (let y = 331; y < 299 + 144; y++)
        for (let x = 1301; x < 1237 + 144; x++)
          for (let c = 0; c < 4; c++)
            if (a.bytes[((y - a.y) * a.side + x - a.x) * 4 + c] !== b.bytes[((y - b.y) * b.side + x - b.x) * 4 + c]) differ++;
      expect(differ).toBe(0);
      if (!seamless) return;
      // The corner, from either end of the sheet.
      const [beyond, there] = [window(8192, -37, 8192 - 50, 96), window(8192, 8192 - 37, -50, 96)];
      expect(Math.max(...beyond.bytes.map((v, i) => Math.abs(v - there.bytes[i])))).toBeLessThanOrEqual(1);
    });
  });
});

/** Between them they use every operation. */
const SAMPLES = [
  'paper.crumpled',
  'paper.aged',
  'cloth.hessian',
  'masonry.brick',
  'masonry.flaking',
  'wood.weathered',
  'cracks.mud',
  'skin.grain',
  'skin.made',
  'wear.film',
  'brush.knife',
  'living.leaves',
  'edges.frame',
];

it.each(SAMPLES)('a window is part of the whole sheet, within a level: %s', (id) => {
  const size = 3072;
  drafted(id, (draft, window) => {
    const frame = sheetFrame(draft, size);
    const target = memory.take(frame.width * frame.height * 4);
    drawDraft(draft, { machine, memory, frame }, target);
    const whole = machine.bytes.slice(target, target + frame.width * frame.height * 4);
    memory.give(target);
    for (const { x, y, side, bytes } of [
      window(size, 0, 0, 256),
      window(size, 1237, 731, 512),
      window(size, frame.width - 256, frame.height - 256, 256),
    ]) {
      let [sum, over] = [0, 0];
      bytes.forEach((v, i) => {
        const [px, py] = [(i >> 2) % side, Math.floor((i >> 2) / side)];
        const off = Math.abs(v - whole[((y + py) * frame.width + x + px) * 4 + (i & 3)]);
        sum += off;
        over += +(off > 1);
      });
      expect(sum / bytes.length).toBeLessThan(1);
      expect(over / bytes.length).toBeLessThan(0.01);
    }
  });
});
