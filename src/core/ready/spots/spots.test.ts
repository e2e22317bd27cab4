import { numbers, testBench } from '@/testing/machine';
import { solveMembrane } from './membrane';
import { boxOfPath, mend, mendScratch, stretches } from './mend';
import { pathOf } from './line';
import { spotSchema, type Spot } from './schema';
import { findSource } from './source';

const bench = testBench(160);
const { machine } = bench;
const work = bench.take(60 * 2 ** 20);
const clamp = (v: number) => Math.max(0, Math.min(255, Math.round(v)));

describe('the membrane', () => {
  /** Fills a hole in a function's values and returns the largest error in it. */
  const error = (f: (x: number, y: number) => number, hole: (x: number, y: number) => boolean, w = 90, h = 70): number => {
    const mask = work;
    const values = work + 16384;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        machine.bytes[mask + y * w + x] = hole(x, y) ? 1 : 0;
        machine.floats[values / 4 + y * w + x] = hole(x, y) ? 0 : f(x, y);
      }
    solveMembrane(machine, { values, mask, width: w, height: h }, values + 2 ** 20);
    let most = 0;
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) most = Math.max(most, Math.abs(machine.floats[values / 4 + y * w + x] - f(x, y)));
    return most;
  };
  const disc = (x: number, y: number) => Math.hypot(x - 44, y - 33) < 28;
  const comb = (x: number, y: number) => x > 4 && x < 84 && y > 4 && y < 64 && (x % 9 < 6 || y < 12);

  // Polynomials that the five-point Laplacian maps to exactly nought (harmonic, and of a degree at which the differences are exact).
  const harmonic: [string, (x: number, y: number) => number][] = [
    ['a constant', () => 0.4],
    ['a slope', (x, y) => (2 * x - 3 * y) / 300],
    ['x² − y²', (x, y) => ((x - 45) ** 2 - (y - 35) ** 2) / 4000],
    ['xy', (x, y) => ((x - 45) * (y - 35)) / 3000],
    ['x³ − 3xy²', (x, y) => ((x - 45) ** 3 - 3 * (x - 45) * (y - 35) ** 2) / 200000],
  ];
  it.each(harmonic)('reproduces %s in a disc and in a comb', (_name, f) => {
    expect(error(f, disc)).toBeLessThan(0.0004);
    expect(error(f, comb)).toBeLessThan(0.0004);
  });
  it('does not reproduce what is not harmonic, and stays between the values around it', () => {
    expect(error((x, y) => ((x - 45) ** 2 + (y - 35) ** 2) / 4000, disc)).toBeGreaterThan(0.1);
  });
  it('is free at the edge of the picture: a level field up to it stays level', () => {
    expect(
      error(
        (_x, y) => y / 100,
        (x, y) => x < 30 && y > 10 && y < 60,
      ),
    ).toBeLessThan(0.0004);
  });
});

/** Four grounds of 400 × 300: sky, water, skin and wall, with noise as a camera gives. */
const grounds: Record<string, (x: number, y: number) => number[]> = {
  sky: (x, y) => [150 + y * 0.2, 175 + y * 0.15, 205 + x * 0.03],
  water: (x, y) => {
    const wave = 14 * Math.sin(y * 0.55 + 2 * Math.sin(x * 0.045)) + 8 * Math.sin(x * 0.11 + y * 0.23);
    return [70 + wave + y * 0.1, 95 + wave, 105 + wave];
  },
  skin: (x, y) => {
    const round = 40 * Math.exp(-(((x - 160) / 180) ** 2) - ((y - 120) / 140) ** 2);
    return [165 + round, 122 + round * 0.8, 100 + round * 0.7];
  },
  wall: (x, y) => {
    const row = Math.floor(y / 25);
    const joint = y % 25 < 3 || (x + (row % 2) * 30) % 60 < 3;
    return joint ? [170, 165, 155] : [140 + 10 * Math.sin(x * 0.02), 85, 65];
  },
};

describe.each(Object.keys(grounds))('an object of up to 5 %% of the picture on %s', (name) => {
  const noise = numbers(7);
  const width = 400;
  const height = 300;
  const clean: number[][] = [];
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) clean.push(grounds[name](x, y).map((v) => clamp(v + (noise() - 0.5) * 8)));
  const radius = Math.sqrt((0.05 * width * height) / Math.PI);

  it.each([8, radius - 1])('goes without a visible patch (radius %d)', (r) => {
    const [cx, cy] = [215, 160];
    const inside = (x: number, y: number) => Math.hypot(x + 0.5 - cx, y + 0.5 - cy) < r;
    const photo = bench.picture(width, height, (x, y) => (inside(x, y) ? [220, 40 + (x % 13) * 8, 30] : clean[y * width + x]));
    const size = ((2 * (r + 2)) / width) * 2000;
    const spot: Spot = spotSchema.parse({ points: [[cx / width, cy / height]], size });
    const [[dx, dy]] = mend(machine, photo, [spot], work);
    expect(Math.hypot(dx, dy)).toBeGreaterThan(2 * r);
    // What is left differs from the ground that was there by no more than the ground's own places differ among each other.
    let sum = 0;
    let mean = [0, 0, 0];
    let n = 0;
    let untouched = 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const was = clean[y * width + x];
        const is = [0, 1, 2].map((c) => machine.bytes[photo.levels[0] + (y * width + x) * 4 + c]);
        if (!inside(x, y)) {
          if (Math.hypot(x + 0.5 - cx, y + 0.5 - cy) > r + 5 && is.some((v, c) => v !== was[c])) untouched++;
          continue;
        }
        n++;
        sum += is.reduce((s, v, c) => s + Math.abs(v - was[c]), 0) / 3;
        mean = mean.map((m, c) => m + is[c] - was[c]);
      }
    expect(untouched).toBe(0);
    expect(sum / n).toBeLessThan({ sky: 5, water: 16, skin: 6, wall: 9 }[name] as number);
    mean.forEach((m) => expect(Math.abs(m / n)).toBeLessThan(4));
  });
});

describe('spots', () => {
  it('find a source beside a wire, and mend it in stretches as well as in one', () => {
    const ground = (x: number, y: number) => [120 + x * 0.1, 140 + y * 0.1, 160];
    const wire = (x: number, y: number) => Math.abs(y - 20 - x * 0.4) < 1.5;
    const draw = () => bench.picture(500, 260, (x, y) => (wire(x, y) ? [20, 20, 20] : ground(x, y)));
    const spot = spotSchema.parse({
      points: [
        [-0.01, 18 / 260],
        [1.01, 222 / 260],
      ],
      size: 28,
    });
    const photo = draw();
    const path = pathOf(spot, photo);
    expect(stretches(path, photo, 10000).length).toBeGreaterThan(3);
    const [dx, dy] = findSource(machine, photo, path);
    expect(Math.abs(dy - dx * 0.4) / Math.hypot(1, 0.4)).toBeGreaterThan(path.radius * 2);
    mend(machine, photo, [spot], work);
    let most = 0;
    for (let y = 0; y < 260; y++)
      for (let x = 0; x < 500; x++)
        ground(x, y).forEach((v, c) => (most = Math.max(most, Math.abs(machine.bytes[photo.levels[0] + (y * 500 + x) * 4 + c] - v))));
    expect(most).toBeLessThan(4);
  });

  it('keep to the picture, ask for little memory and change nothing outside', () => {
    expect(boxOfPath({ points: [[-50, 10]], radius: 8 }, { width: 100, height: 80 })).toBeNull();
    expect(boxOfPath({ points: [[3, 4]], radius: 8 }, { width: 100, height: 80 })).toEqual({ x: 0, y: 0, width: 13, height: 14 });
    const wire = spotSchema.parse({
      points: [
        [0, 0],
        [1, 1],
      ],
      size: 6,
    });
    expect(mendScratch({ width: 6000, height: 4000 }, [wire])).toBeLessThan(64 * 2 ** 20);
    expect(mendScratch({ width: 6000, height: 4000 }, [])).toBeLessThan(8192);
  });

  it('take their source from where they are told, and smaller levels follow', () => {
    const photo = bench.picture(64, 64, (x) => (x < 32 ? [200, 200, 200] : [40, 40, 40]));
    const spot = spotSchema.parse({ points: [[0.25, 0.5]], size: 200, from: [0.02, 0.3] });
    const [from] = mend(machine, photo, [spot], work);
    expect(from).toEqual([1, 19]);
    expect(machine.bytes[photo.levels[0] + (32 * 64 + 16) * 4]).toBe(200);
    expect(machine.bytes[photo.levels[2] + (8 * 16 + 4) * 4]).toBe(200);
  });

  it('are refused with a sentence when they are not spots', () => {
    expect(spotSchema.safeParse({ points: [] }).success).toBe(false);
    expect(spotSchema.safeParse({ points: [[0, 0]], size: -1 }).success).toBe(false);
  });
});
