import { pieceSchema, type Piece } from '../core/piece/schema';
import { readySchema, type Ready } from '../core/ready/schema';
import { smoothCurve } from '../core/treatments/curves';
import { useBench } from './bench';
import { addSpot, chooseSpot, fringesOf, readyOf, useReady } from './ready';
import { automaticGains, measure, measureBefore, measureWhole, stretched, useScopes, withoutCast } from './scopes';
import { withParts } from '../core/ready/parts';
import { useStarts } from './starts';

Object.assign(globalThis, { window: new EventTarget() });

/** What the engine is asked to draw, and the pixels it answers with. */
let pixel: (i: number) => number[] = () => [0, 0, 0];
const asked: Piece[] = [];
const mockEngine = {
  draw: async (drawing: { piece: Piece; region: { width: number; height: number } }, hand: (p: Uint8Array) => unknown) => {
    asked.push(drawing.piece);
    const { width, height } = drawing.region;
    const out = new Uint8Array(width * height * 4);
    for (let i = 0; i < width * height; i++) out.set([...pixel(i), 255], i * 4);
    return hand(out);
  },
  spotSource: jest.fn(async (): Promise<[number, number]> => [0.123456789, -0.05]),
  fringes: jest.fn(async () => ({ red: 1, blue: -1, edges: 900 })),
};
jest.mock('./engine', () => ({ getEngine: async () => mockEngine }));

const piece = (ready?: object): Piece =>
  pieceSchema.parse({
    dermatex: 1,
    id: 'p',
    name: 'Pier',
    created: 1,
    changed: 1,
    photo: { key: 'k', name: 'k.png', width: 600, height: 400 },
    ready: ready && readySchema.parse(ready),
    coats: [{ id: 'a', source: { kind: 'colour', colour: '#808080' } }],
  });
const open = (p: Piece) => useBench.setState({ piece: p, draft: null, past: [], future: [] });
const spots = () => readyOf(useBench.getState().piece as Piece).spots;

beforeEach(() => {
  asked.length = 0;
  useScopes.setState({ watchers: 0, kind: 'histogram', part: 'view', clipping: false, histogram: null, parade: null, wheel: null, before: null });
});

describe('spots', () => {
  it('are added with the source that was found, chosen, and undone in one step', async () => {
    open(piece());
    await addSpot({ points: [[0.5, 0.5]], size: 20 });
    expect(spots()).toEqual([{ points: [[0.5, 0.5]], size: 20, from: [0.12346, -0.05] }]);
    expect(useReady.getState().spot).toBe(0);
    expect(useBench.getState().undo()).toBe('Remove a spot');
    expect(spots()).toEqual([]);
  });
  it('whose source was left open get it when they are chosen, others stay as they are', async () => {
    open(piece({ spots: [{ points: [[0.1, 0.1]] }, { points: [[0.2, 0.2]], from: [0.3, 0] }] }));
    mockEngine.spotSource.mockClear();
    await chooseSpot(1);
    expect(mockEngine.spotSource).not.toHaveBeenCalled();
    await chooseSpot(0);
    expect(spots()[0].from).toEqual([0.12346, -0.05]);
    expect(spots()[1].from).toEqual([0.3, 0]);
    // It was looked for on the photo without the later spots.
    const [[looked]] = mockEngine.spotSource.mock.calls as unknown as [[Piece]];
    expect(looked.ready?.spots).toEqual([]);
  });
  it('and fringes are the engine’s to find', async () => {
    expect(await fringesOf(piece())).toMatchObject({ red: 1, blue: -1 });
  });
});

describe('scopes', () => {
  const grey = (i: number) => Array(3).fill(i % 256);
  it('measure only while somebody watches, and nothing that is painted over or only a part', () => {
    const pixels = new Uint8Array(400).fill(128);
    measure(pixels, 10, 10);
    expect(useScopes.getState().histogram).toBeNull();
    for (const state of [{ part: 'whole' as const }, { clipping: true }]) {
      useScopes.setState({ watchers: 1, part: 'view', clipping: false, ...state });
      measure(pixels, 10, 10);
      expect(useScopes.getState().histogram).toBeNull();
    }
    useScopes.setState({ watchers: 1, part: 'view', clipping: false, kind: 'hues' });
    measure(pixels, 10, 10);
    expect(useScopes.getState().histogram?.luma[128]).toBe(100);
    expect(useScopes.getState().parade?.columns).toBe(64);
    expect(useScopes.getState().wheel?.mean).toEqual([0, 0]);
  });
  it('measure a whole piece on a drawing of its own, and the newest when it changes meanwhile', async () => {
    pixel = grey;
    const first = measureWhole(piece(), { kind: 'piece' });
    const second = measureWhole({ ...piece(), name: 'Newer' }, { kind: 'piece' });
    await Promise.all([first, second]);
    expect(asked.map((p) => p.name)).toEqual(['Pier', 'Newer']);
    expect(useScopes.getState().histogram?.pixels).toBe(300 * 200);
  });
  it('know the photo before its light and colour, once for every frame', async () => {
    pixel = grey;
    await measureBefore(piece({ tone: { exposure: 1 }, crop: { w: 0.5 }, noise: { luma: 1 } }));
    await measureBefore(piece({ tone: { exposure: 2 }, crop: { w: 0.5 } }));
    expect(asked).toHaveLength(1);
    expect(asked[0].coats).toEqual([]);
    expect(asked[0].ready?.tone).toBeUndefined();
    expect(asked[0].ready?.crop.w).toBe(0.5);
    expect(useScopes.getState().before?.pixels).toBeGreaterThan(0);
    await measureBefore(piece({ crop: { w: 0.7 } }));
    expect(asked).toHaveLength(2);
  });
});

describe('what is set by itself', () => {
  it('gains make a tinted grey grey', async () => {
    pixel = (i) => [60 + (i % 100), 70 + (i % 100), 90 + (i % 100)];
    const [r, g, b] = await automaticGains(piece({ whiteBalance: { warmth: 0.5 } }));
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
    // Measured without the balance that is there.
    expect(asked[0].ready?.whiteBalance).toBeUndefined();
  });
  it('stretching keeps the curve of all channels and sets the ends of each', async () => {
    pixel = (i) => [50 + (i % 100), 30 + (i % 150), 80 + (i % 60)];
    const curves = await stretched(
      piece({
        curves: {
          all: [
            [0, 0.1],
            [1, 1],
          ],
        },
      }),
    );
    expect(curves.all[0]).toEqual([0, 0.1]);
    expect(curves.red[0][0]).toBeCloseTo(50 / 255, 2);
    expect(curves.green[1][0]).toBeCloseTo(179 / 255, 2);
    expect(asked[0].ready?.curves).toBeUndefined();
  });
  it('a cast is mended on top of the curve that is there, and by nothing when there is none', async () => {
    pixel = (i) => [i % 220, i % 220, (i % 220) + 30];
    const own: [number, number][] = [
      [0, 0],
      [0.5, 0.6],
      [1, 1],
    ];
    const mended = await withoutCast(piece({ curves: { blue: own } }));
    expect(mended?.channel).toBe('blue');
    const after = smoothCurve(mended?.curves.blue ?? []);
    const before = smoothCurve(own);
    // What blue showed at a middle level is brought down to the others, 30 levels lower.
    expect((before(0.5) - after(0.5)) * 255).toBeGreaterThan(15);
    for (let x = 0.02; x < 1; x += 0.02) expect(after(x)).toBeGreaterThanOrEqual(after(x - 0.02) - 1e-6);
    pixel = grey;
    expect(await withoutCast(piece())).toBeNull();
    function grey(i: number) {
      return Array(3).fill(i % 256);
    }
  });
});

describe('starts', () => {
  const rich: Ready = readySchema.parse({
    tone: { exposure: 0.4 },
    colour: { saturation: -0.4 },
    whiteBalance: { neutral: [0.4, 0.4], warmth: 0.1 },
    spots: [{ points: [[0.5, 0.5]] }],
  });
  it('are kept, named, listed anew from the store, and forgotten', async () => {
    await useStarts.getState().keep('  Pale morning ', rich);
    const [start] = useStarts.getState().kept;
    expect(start).toMatchObject({ name: 'Pale morning', ready: { tone: { exposure: 0.4 }, spots: [] } });
    expect(start.ready.whiteBalance?.neutral).toBeUndefined();
    await useStarts.getState().rename(start.id, 'Noon');
    await useStarts.getState().rename(start.id, '   ');
    useStarts.setState({ kept: [] });
    await useStarts.getState().refresh();
    expect(useStarts.getState().kept.map((s) => s.name)).toEqual(['Noon']);
    await useStarts.getState().remove(start.id);
    await useStarts.getState().refresh();
    expect(useStarts.getState().kept).toEqual([]);
  });
  it('are put on a photo in part, and copied', () => {
    const own = readySchema.parse({ tone: { exposure: -1 }, spots: [{ points: [[0.1, 0.1]] }] });
    const mixed = withParts(own, rich, ['colour']);
    expect(mixed.tone?.exposure).toBe(-1);
    expect(mixed.colour?.saturation).toBe(-0.4);
    expect(mixed.spots).toEqual(own.spots);
    useStarts.getState().copy('Pier', rich);
    expect(useStarts.getState().copied).toMatchObject({ from: 'Pier', ready: { colour: { saturation: -0.4 }, spots: [] } });
  });
});
