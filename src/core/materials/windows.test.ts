import { testMachine } from '@/testing/machine';
import { PAGE } from '../image/machine';
import { materialById, materials } from '.';
import { Drafts, DRAFT_WORK, type SheetOrder, type Work } from './drafts';
import { draftOf, drawDraft, workingMemory } from './generate';
import { coarseAt, coarseBytes, coarseSteps, drawCoarse, sheetFrame, WINDOW } from './windows';

const MEBIBYTES = 900;
const machine = testMachine(MEBIBYTES + 1);
const memory = workingMemory(PAGE, MEBIBYTES * 2 ** 20);
const drafts = new Drafts(machine);

interface Window {
  x: number;
  y: number;
  side: number;
  bytes: Uint8Array;
}

const orderOf = (id: string, size: number): SheetOrder => ({ id, seed: 3, params: {}, aspect: materialById(id).shape === 'piece' ? 1.5 : 1, size });

/** Lends exactly as much working memory as was asked for: what is worked out beforehand must be enough. */
function lent<T>(bytes: number, then: (work: Work) => T): T {
  const at = memory.take(bytes);
  try {
    return then({ at, bytes });
  } finally {
    memory.give(at);
  }
}

/** Draws windows of a sheet as the workers do. */
function onSheet<T>(order: SheetOrder, then: (window: (x: number, y: number, side: number) => Window) => T): T {
  const cost = lent(DRAFT_WORK, (work) => drafts.cost(order, work));
  const coarse = memory.take(cost.coarse);
  lent(cost.coarseWork, (work) => drafts.coarse(order, coarse, work));
  try {
    return then((x, y, side) =>
      lent(side * side * 4, ({ at }) => {
        lent(cost.work, (work) => drafts.window(order, { x, y, width: side, height: side }, coarse, at, side, work));
        return { x, y, side, bytes: machine.bytes.slice(at, at + side * side * 4) };
      }),
    );
  } finally {
    memory.give(coarse);
  }
}

const SHEET = 8192;

describe('windows of a sheet of 8192 pixels', () => {
  it.each(materials.map(({ id, seamless }) => [id, seamless] as const))('join to the byte, and continue where the sheet does: %s', (id, seamless) => {
    onSheet(orderOf(id, SHEET), (window) => {
      // At odd places, of different sizes.
      const [a, b] = [window(1237, 331, WINDOW), window(1301, 299, 144)];
      let differ = 0;
      for (let y = 331; y < 299 + 144; y++)
        for (let x = 1301; x < 1301 + 144; x++)
          for (let c = 0; c < 4; c++)
            if (a.bytes[((y - a.y) * a.side + x - a.x) * 4 + c] !== b.bytes[((y - b.y) * b.side + x - b.x) * 4 + c]) differ++;
      expect(differ).toBe(0);
      if (!seamless) return;
      // The corner, from either end of the sheet.
      const [beyond, there] = [window(-37, SHEET - 50, 96), window(SHEET - 37, -50, 96)];
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
  'air.leak',
  'air.clouds',
  'edges.frame',
];

it.each(SAMPLES)('a window is part of the whole sheet, within a level: %s', (id) => {
  const order = orderOf(id, 3072);
  const draft = draftOf(machine, memory, { ...order, material: materialById(id) });
  const frame = sheetFrame(draft, order.size);
  const at = memory.take(coarseBytes(draft));
  drawCoarse(draft, machine, memory, at);
  // The whole takes from the smaller drawing only what is defined there.
  const decided = coarseSteps(draft).filter(({ params }) => (params as { isDecided?: boolean }).isDecided);
  const coarse = new Map([...coarseAt(draft, at)].filter(([step]) => decided.some(({ id: own }) => own === step)));
  const target = memory.take(frame.width * frame.height * 4);
  drawDraft(draft, { machine, memory, frame, coarse }, target);
  const whole = machine.bytes.slice(target, target + frame.width * frame.height * 4);
  memory.give(target);
  memory.give(at);
  onSheet(order, (window) => {
    for (const { x, y, side, bytes } of [window(0, 0, 256), window(1237, 731, 512), window(frame.width - 256, frame.height - 256, 256)]) {
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
