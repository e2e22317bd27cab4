import { pieceSchema } from '../core/piece/schema';
import type { Candidate } from '../core/piece/candidates';
import { cellRegion, drawCells } from './contact';

const drawn: { strength: number; chosen?: string; quick?: boolean }[] = [];
jest.mock('./engine', () => ({
  getEngine: async () => ({
    draw: async (drawing: { piece: { strength: number }; chosen?: string }, take: (p: Uint8Array) => void, options: { quick?: boolean }) => {
      drawn.push({ strength: drawing.piece.strength, chosen: drawing.chosen, quick: options.quick });
      take(new Uint8Array(4 * 3 * 4).fill(9));
    },
  }),
}));
Object.assign(globalThis, {
  ImageData: class {
    data: Uint8ClampedArray;
    constructor(
      readonly width: number,
      readonly height: number,
    ) {
      this.data = new Uint8ClampedArray(width * height * 4);
    }
  },
});

const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'p',
  created: 0,
  changed: 0,
  photo: { key: 'k', name: 'k', width: 3000, height: 2000 },
});
const list: Candidate[] = [0.2, 0.4, 0.6].map((strength) => ({
  key: String(strength),
  name: String(strength),
  now: false,
  edit: (p) => ({ ...p, strength }),
}));
const region = { x: 0, y: 0, width: 4, height: 3 };
beforeEach(() => drawn.splice(0));

describe('cells of a contact sheet', () => {
  it('come in the order that is asked for, each as its own edit makes it, with what lies below kept', async () => {
    const shown: string[] = [];
    await drawCells(
      piece,
      'coat',
      list,
      region,
      0.1,
      (left) => left[left.length - 1],
      (key) => shown.push(key),
      new AbortController().signal,
    );
    expect(shown).toEqual(['0.6', '0.4', '0.2']);
    expect(drawn).toEqual([0.6, 0.4, 0.2].map((strength) => ({ strength, chosen: 'coat', quick: true })));
  });
  it('stop when nobody looks any more', async () => {
    const stop = new AbortController();
    const shown: string[] = [];
    const show = (key: string) => {
      shown.push(key);
      stop.abort();
    };
    await drawCells(piece, 'coat', list, region, 0.1, (left) => left[0], show, stop.signal);
    expect(shown).toEqual(['0.2']);
    expect(drawn).toHaveLength(1);
  });
});

describe('what a cell shows', () => {
  it('is all of the picture, as large as asked for', () => {
    const { region: all, scale } = cellRegion(piece, { kind: 'whole' }, 300);
    expect(all).toEqual({ x: 0, y: 0, width: 300, height: 200 });
    expect(scale).toBeCloseTo(0.1);
  });
  it('or a detail at its own size, kept inside the picture', () => {
    expect(cellRegion(piece, { kind: 'detail', middle: [0.5, 0.5] }, 200)).toEqual({
      scale: 1,
      region: { x: 1400, y: 925, width: 200, height: 150 },
    });
    expect(cellRegion(piece, { kind: 'detail', middle: [1, 0] }, 200).region).toEqual({ x: 2800, y: 0, width: 200, height: 150 });
  });
});
