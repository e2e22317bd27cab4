import { drawPiece, pullTile } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema } from '../piece/schema';

const bench = testBench(192);
const [W, H] = [400, 300];
/** At 400 pixels one pixel is 5 u. */
const U = 5;

type Level = (x: number, y: number) => number;
const coat = (treatment: object, more: object = {}) =>
  coatSchema.parse({ id: 'a', source: { kind: 'below' }, treatments: [treatment], guards: 0, ...more });

/** Levels of a grey picture after a treatment of it. */
function treated(level: Level, treatment: object): Level {
  const photo = bench.picture(W, H, (x, y) => [level(x, y), level(x, y), level(x, y)]);
  const pixels = drawPiece(bench, { photo, coats: [coat(treatment)] });
  return (x, y) => pixels[(y * W + x) * 4];
}
const grid = (look: (x: number, y: number) => void, step = 7) => {
  for (let y = 10; y < H - 10; y += step) for (let x = 10; x < W - 10; x += step) look(x, y);
};

describe('glow', () => {
  const lamp: Level = (x, y) => (Math.hypot(x - 200, y - 150) < 20 ? 255 : 60);
  it('leaves what is dark and even as it is, and never darkens', () => {
    const flat = treated(() => 60, { kind: 'glow', light: 1 });
    grid((x, y) => expect(flat(x, y)).toBe(60));
    const at = treated(lamp, { kind: 'glow', light: 1, radius: 60 });
    grid((x, y) => expect(at(x, y)).toBeGreaterThanOrEqual(lamp(x, y) - 1));
  });
  it('spreads around a light, less the further away', () => {
    const at = treated(lamp, { kind: 'glow', light: 0.8, radius: 60 });
    const along = [24, 32, 40, 52, 70].map((d) => at(200 + d, 150));
    along.slice(1).forEach((v, i) => expect(v).toBeLessThan(along[i]));
    expect(along[0]).toBeGreaterThan(100);
    expect(at(380, 20)).toBeLessThanOrEqual(62);
  });
  it('dark spreads shadows instead, and never lightens', () => {
    const hole: Level = (x, y) => 255 - lamp(x, y);
    const at = treated(hole, { kind: 'glow', light: 0, dark: 1, radius: 80 });
    grid((x, y) => expect(at(x, y)).toBeLessThanOrEqual(hole(x, y) + 1));
    expect(at(223, 150)).toBeLessThan(hole(223, 150) - 8);
  });
});

it('a double image is the picture mixed with a copy of itself that was moved', () => {
  const bars: Level = (x) => (Math.floor(x / 25) % 2 === 0 ? 40 : 200);
  const at = treated(bars, { kind: 'double', amount: 0.25, right: 10 * U, down: 0, turn: 0 });
  grid((x, y) => {
    if (x > 20) expect(Math.abs(at(x, y) - (0.75 * bars(x, y) + 0.25 * bars(x - 10, y)))).toBeLessThanOrEqual(1);
  });
});

describe('streaks', () => {
  const flat = (angle: number, more: object = {}) =>
    treated(() => 100, { kind: 'streaks', amount: 1, density: 0.5, length: 2000, width: 3 * U, angle, ...more });
  const spread = (values: number[]) => Math.max(...values) - Math.min(...values);
  it('run along their angle and only lighten, or only darken', () => {
    const upright = flat(90);
    const [down, across] = [
      Array.from({ length: 40 }, (_, i) => upright(137, 100 + i)),
      Array.from({ length: 200 }, (_, i) => upright(100 + i, 150)),
    ];
    expect(spread(across)).toBeGreaterThan(40);
    expect(spread(down)).toBeLessThan(spread(across) / 2);
    expect(Math.min(...across)).toBe(100);
    const dark = flat(90, { tone: 'dark' });
    expect(Math.max(...Array.from({ length: 200 }, (_, i) => dark(100 + i, 150)))).toBe(100);
  });
  it('are more the denser they are', () => {
    const lit = (density: number) => {
      const at = flat(90, { density });
      return Array.from({ length: 380 }, (_, i) => at(10 + i, 150)).filter((v) => v > 110).length;
    };
    expect(lit(0.9)).toBeGreaterThan(lit(0.2));
    expect(lit(0.2)).toBeGreaterThan(0);
  });
});

it('a ripple moves no pixel further than it is said, and draws in nothing from beyond the edges', () => {
  const ramp: Level = (x) => 40 + x / 2.5;
  const at = treated(ramp, { kind: 'ripple', amount: 4 * U, size: 100 });
  let most = 0;
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) most = Math.max(most, Math.abs(at(x, y) - ramp(x, y)));
  // Four pixels are a deviation, three of them the most; 2.5 pixels are a level.
  expect(most).toBeGreaterThan(1.2);
  expect(most).toBeLessThanOrEqual((3 * 4) / 2.5 + 1.5);
});

describe('pigment', () => {
  it('makes a colour deeper by C − (C − C²)(d − 1), so that white and black stay (Bousseau et al. 2006, equation 1)', () => {
    for (const level of [0, 255]) grid((x, y) => expect(treatedFlat[level](x, y)).toBe(level), 31);
    // A middle grey becomes lighter in places and darker in others; its mean does not change.
    let [sum, count, off] = [0, 0, 0];
    grid((x, y) => {
      sum += treatedFlat[128](x, y);
      off = Math.max(off, Math.abs(treatedFlat[128](x, y) - 128));
      count++;
    });
    expect(Math.abs(sum / count - 128)).toBeLessThan(6);
    expect(off).toBeGreaterThan(4);
  });
  const treatedFlat: Record<number, Level> = {};
  beforeAll(() => {
    for (const level of [0, 128, 255]) treatedFlat[level] = treated(() => level, { kind: 'pigment', thin: 0, wash: 1, grain: 1, rims: 0 });
  });
  it('thinned is (1 − 0.9·(1 − C))^0.70 at full, and dark rims lie on the dark side of an edge', () => {
    const thin = treated((x) => (x * 255) / W, { kind: 'pigment', thin: 1, wash: 0, grain: 0, rims: 0 });
    for (const x of [40, 120, 250, 360])
      expect(Math.abs(thin(x, 150) - 255 * (0.1 + 0.9 * (Math.round((x * 255) / W) / 255)) ** 0.7)).toBeLessThanOrEqual(1.5);
    const step: Level = (x) => (x < 200 ? 90 : 170);
    const rim = treated(step, { kind: 'pigment', thin: 0, wash: 0, grain: 0, rims: 1 });
    expect(Math.min(...Array.from({ length: 12 }, (_, i) => rim(188 + i, 150)))).toBeLessThan(88);
    expect([rim(60, 150), rim(340, 150)]).toEqual([90, 170]);
  });
});

describe('only the outline of a mask', () => {
  it.each([10, 30])('is a line %d u wide along its edge', (line) => {
    const photo = bench.picture(W, H, () => [128, 128, 128]);
    const mask = { start: 'none', line, parts: [{ kind: 'ellipse', op: 'add', cx: 0.5, cy: 0.5, rx: 0.25, ry: 1 / 3, feather: 0 }] };
    const tile = pullTile(bench, {
      photo,
      coats: [coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#ffffff' }, blend: 'normal', strength: 1, mask })],
    });
    const row = Array.from({ length: W }, (_, x) => bench.machine.floats[tile.ptr / 4 + 150 * W + x] * 255);
    const white = row.map((v) => (v - 128) / 127);
    // Two crossings, at 100 and 300, each as wide as the line.
    expect(Math.abs(white.reduce((a, b) => a + b, 0) - (2 * line) / U)).toBeLessThan(1.2);
    expect([white[200], white[50]].map((v) => Math.round(v))).toEqual([0, 0]);
    expect(Math.max(white[99], white[100])).toBeGreaterThan(0.6);
  });
});

it('poster shapes have outlines of their width where they meet, and none within', () => {
  const photo = bench.picture(W, H, (x) => (x < 200 ? [200, 60, 40] : [40, 90, 180]));
  const palette = [200, 60, 40, 40, 90, 180].map((v) => v / 255);
  const load = ({ need }: { need: string }) =>
    need === 'survey'
      ? ({ kind: 'survey', survey: { slope: 0, offset: 0, width: 1, height: 1, low: 0, middle: 0.5, high: 1, palette } } as never)
      : undefined;
  const drawn = (line: number) =>
    drawPiece(bench, { photo, load, coats: [coat({ kind: 'shapes', colours: 2, line, lineColour: '#000000', vivid: 0 })] });
  const [plain, lined] = [drawn(0), drawn(20)];
  const dark = Array.from({ length: W }, (_, x) => 1 - lined[(150 * W + x) * 4 + 1] / Math.max(1, plain[(150 * W + x) * 4 + 1]));
  expect(Math.abs(dark.reduce((a, b) => a + b, 0) - 20 / U)).toBeLessThan(1.2);
  expect([dark[100], dark[300]].map((v) => Math.round(v * 100))).toEqual([0, 0]);
});

// Facts of the trade (common practice, no source), on a picture 1920 pixels wide.
describe('recipes of the trade', () => {
  const [w, h] = [1920, 240];
  const px = 2000 / w;
  const wave = (x: number, y: number) => 20 * Math.sin(x * 1.7 + y * 2.3) * Math.cos(x * 0.9 - y * 1.1);
  const scene = (x: number, y: number) => (x < 960 ? 60 : 190) + wave(x, y);
  const photo = () =>
    bench.picture(w, h, (x, y) => {
      const v = Math.round(scene(x, y));
      return [v, v, v];
    });
  const row = (coats: ReturnType<typeof coat>[], y = 120) => {
    const pixels = drawPiece(bench, { photo: photo(), coats });
    return Array.from({ length: w }, (_, x) => pixels[(y * w + x) * 4]);
  };
  const spread = (values: number[]) => Math.max(...values) - Math.min(...values);

  it('an edge-keeping blur of 15 pixels with a tolerance of 65 flattens texture of 20 levels and keeps an edge of 130', () => {
    const after = row([coat({ kind: 'smooth', radius: 15 * px, tolerance: 65, passes: 1, strength: 1 })]);
    const before = row([]);
    expect(spread(after.slice(300, 500))).toBeLessThan(spread(before.slice(300, 500)) / 3);
    const mean = (a: number, b: number) => after.slice(a, b).reduce((sum, v) => sum + v, 0) / (b - a);
    expect(mean(966, 980) - mean(940, 954)).toBeGreaterThan(0.8 * 130);
  });
  it('lines of 3 pixels, 10 % darker and with 40 % more contrast, multiplied, darken the edge alone', () => {
    const lines = coat(
      { kind: 'fine', radius: 3 * px, amount: 1, floor: 12 },
      {
        source: { kind: 'photo' },
        treatments: [
          { kind: 'smooth', radius: 15 * px, tolerance: 65 },
          { kind: 'fine', radius: 3 * px, amount: 1, floor: 12 },
          { kind: 'tone', brightness: -0.1, contrast: 0.4 },
        ],
        blend: 'multiply',
      },
    );
    const [after, before] = [row([lines]), row([])];
    const ratio = after.map((v, x) => v / before[x]);
    expect(Math.min(...ratio.slice(954, 967))).toBeLessThan(0.5);
    // On paper, white at −10 % brightness and +40 % contrast stays white.
    for (const x of [400, 500, 1400, 1600]) expect(ratio[x]).toBeGreaterThan(0.97);
  });
  it('ink by difference from the own blur: black where nothing changes, white along the edge, and black lines when inverted', () => {
    const even = coat({ kind: 'smooth', radius: 15 * px, tolerance: 25 });
    const difference = coatSchema.parse({
      id: 'b',
      source: { kind: 'below' },
      treatments: [{ kind: 'blur', radius: 8 * px }],
      blend: 'difference',
      guards: 0,
    });
    const inverted = coatSchema.parse({ id: 'c', source: { kind: 'below' }, treatments: [{ kind: 'invert' }], guards: 0 });
    const lines = row([even, difference]);
    expect(Math.max(...lines.slice(940, 980))).toBeGreaterThan(30);
    for (const x of [400, 1500]) expect(lines[x]).toBeLessThan(12);
    const ink = row([even, difference, inverted]);
    expect(ink[400]).toBeGreaterThan(243);
    expect(Math.min(...ink.slice(940, 980))).toBeLessThan(220);
  });
  it('a layer of 50 % grey in overlay, which dodging and burning paints on, changes nothing', () => {
    const marks = coatSchema.parse({ id: 'd', source: { kind: 'strokes', use: 'light' }, blend: 'soft-light', guards: 0 });
    expect(row([marks])).toEqual(row([]));
  });
});
