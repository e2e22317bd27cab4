import { treat } from '@/testing/draw';
import { openCv } from '@/testing/opencv';
import { numbers, testBench } from '@/testing/machine';
import type { Tile } from '../image/tile';
import { takePalette } from '../measure/paletteSurvey';
import { treatmentByKind } from '.';

const bench = testBench(192);
const { machine, scratch } = bench;
const [W, H] = [160, 120];
const photo = bench.picture(W, H, (x, y) => [x, y, 90]);
/** Pixels to one u: so few that everything is worked out at this size. */
const UNIT = 0.3;

type Values = (x: number, y: number) => number[];
const random = numbers(5);
const grain = Float32Array.from({ length: W * H }, () => random() - 0.5);
/** An edge of 80 levels, with grain of a few levels. */
const edge: Values = (x, y) => Array.from({ length: 3 }, () => (x < 80 ? 90 : 170) / 255 + (3 / 255) * grain[y * W + x]).concat(1);
const scene: Values = (x, y) => [
  0.5 + 0.3 * Math.sin(x / 9) * Math.cos(y / 11) + 0.1 * grain[y * W + x],
  0.4 + 0.2 * Math.cos(x / 13) + 0.1 * grain[y * W + x],
  x > 90 ? 0.7 : 0.25,
  1,
];

function run(values: Values, params: Record<string, unknown>, load?: Parameters<typeof treat>[5]): Tile {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: W, height: H });
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) values(x, y).forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + y * W + x] = v));
  return treat(bench, photo, tile, [treatmentByKind(params.kind as string).schema.parse(params)], UNIT, load);
}
const read = (tile: Tile, x: number, y: number, c: number) =>
  machine.floats[(tile.ptr + c * tile.stride) / 4 + (y - tile.y) * tile.width + x - tile.x];
const inside = (tile: Tile, look: (x: number, y: number) => void) => {
  for (let y = tile.y; y < tile.y + tile.height; y++) for (let x = tile.x; x < tile.x + tile.width; x++) look(x, y);
};
const lumaOf = ([r, g, b]: number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('what simplifies', () => {
  it.each([
    { kind: 'smooth', radius: 12, tolerance: 20 },
    { kind: 'patches', size: 12, passes: 2 },
    { kind: 'flow', length: 12, passes: 2 },
  ])('$kind leaves what is flat as it is, to the byte', (params) => {
    const flat = [180, 90, 45].map((v) => v / 255);
    const out = run(() => [...flat, 1], params);
    inside(out, (x, y) => flat.forEach((v, c) => expect(Math.round(read(out, x, y, c) * 255)).toBe(Math.round(v * 255))));
  });

  it('smooth is the guided filter of the paper, computed value by value (He, Sun & Tang 2013, equations 5, 6 and 8)', () => {
    const [radius, eps] = [4, (24 / 255) ** 2];
    const out = run(scene, { kind: 'smooth', radius: radius / UNIT, tolerance: 24, passes: 1 });
    const at = (plane: number[], x: number, y: number) => plane[Math.min(H - 1, Math.max(0, y)) * W + Math.min(W - 1, Math.max(0, x))];
    const box = (plane: number[]) =>
      plane.map((_, i) => {
        let sum = 0;
        for (let dy = -radius; dy <= radius; dy++) for (let dx = -radius; dx <= radius; dx++) sum += at(plane, (i % W) + dx, Math.floor(i / W) + dy);
        return sum / (2 * radius + 1) ** 2;
      });
    const pixels = Array.from({ length: W * H }, (_, i) => scene(i % W, Math.floor(i / W)));
    const guide = pixels.map(lumaOf);
    const mean = box(guide);
    const variance = box(guide.map((v) => v * v)).map((v, i) => v - mean[i] ** 2);
    for (let c = 0; c < 3; c++) {
      const p = pixels.map((v) => v[c]);
      const meanP = box(p);
      const a = box(guide.map((v, i) => v * p[i])).map((v, i) => (v - mean[i] * meanP[i]) / (variance[i] + eps));
      const b = meanP.map((v, i) => v - a[i] * mean[i]);
      const [ma, mb] = [box(a), box(b)];
      let most = 0;
      inside(out, (x, y) => (most = Math.max(most, Math.abs(read(out, x, y, c) - (ma[y * W + x] * guide[y * W + x] + mb[y * W + x])))));
      expect(most).toBeLessThan(0.5 / 255);
    }
  }, 60_000);

  it('smooth keeps 95 % of an edge of 80 levels, and takes as much grain as OpenCV’s bilateral filter of that radius and tolerance does', () => {
    const out = run(edge, { kind: 'smooth', radius: 10, tolerance: 14, passes: 2 });
    const column = (x: number) => Array.from({ length: 40 }, (_, i) => read(out, x, 40 + i, 0)).reduce((a, b) => a + b) / 40;
    expect((column(86) - column(73)) * 255).toBeGreaterThan(0.95 * 80);
    const from = openCv.matFromArray(
      H,
      W,
      openCv.CV_32FC1,
      Array.from({ length: W * H }, (_, i) => edge(i % W, Math.floor(i / W))[0]),
    );
    const to = new openCv.Mat();
    openCv.bilateralFilter(from, to, 7, 14 / 255, 3, openCv.BORDER_REPLICATE);
    const roughness = (value: (x: number, y: number) => number) => {
      const all: number[] = [];
      for (let y = 40; y < 80; y++) for (let x = 40; x < 66; x++) all.push(value(x, y));
      const mean = all.reduce((a, b) => a + b) / all.length;
      return Math.sqrt(all.reduce((s, v) => s + (v - mean) ** 2, 0) / all.length);
    };
    expect(roughness((x, y) => read(out, x, y, 0))).toBeLessThan(1.2 * roughness((x, y) => to.data32F[y * W + x]));
  });

  it('patches and flow leave an edge where it is, within a pixel', () => {
    for (const params of [
      { kind: 'patches', size: 14, detail: 0 },
      { kind: 'flow', length: 10, passes: 1, even: 0 },
    ]) {
      const out = run(edge, params);
      for (let y = 55; y < 65; y++) {
        let crossed = out.x;
        while (read(out, crossed, y, 0) < 130 / 255) crossed++;
        expect(Math.abs(crossed - 80)).toBeLessThanOrEqual(1);
      }
    }
  });
});

it('the structure tensor is made of OpenCV’s Sobel derivatives', () => {
  scratch.reset();
  const tile = run(scene, { kind: 'two-tones', shadows: 0, highlights: 0.001 });
  const planes = [0, 1, 2].map(() => scratch.plane(W * H + 8));
  machine.kernels.structureTensor(tile.ptr, tile.stride, W, H, planes[0], planes[1], planes[2]);
  const wanted = [0, 0, 0].map(() => new Float64Array(W * H));
  for (let c = 0; c < 3; c++) {
    const from = openCv.matFromArray(
      H,
      W,
      openCv.CV_32FC1,
      machine.floats.slice((tile.ptr + c * tile.stride) / 4, (tile.ptr + c * tile.stride) / 4 + W * H),
    );
    const [gx, gy] = [new openCv.Mat(), new openCv.Mat()];
    openCv.Sobel(from, gx, openCv.CV_32F, 1, 0, 3, 1 / 8, 0, openCv.BORDER_REPLICATE);
    openCv.Sobel(from, gy, openCv.CV_32F, 0, 1, 3, 1 / 8, 0, openCv.BORDER_REPLICATE);
    for (let i = 0; i < W * H; i++) {
      wanted[0][i] += gx.data32F[i] ** 2;
      wanted[1][i] += gx.data32F[i] * gy.data32F[i];
      wanted[2][i] += gy.data32F[i] ** 2;
    }
  }
  planes.forEach((plane, k) => {
    for (let i = 0; i < W * H; i++) expect(Math.abs(machine.floats[plane / 4 + i] - wanted[k][i])).toBeLessThan(1e-5);
  });
});

it('the difference across the flow is OpenCV’s difference of Gaussians where the picture changes in one direction', () => {
  scratch.reset();
  const wave = (x: number) => 0.5 + 0.4 * Math.sin(x / 5);
  const [plane, tx, ty, out] = Array.from({ length: 4 }, () => scratch.plane(W * H + 8, 0));
  machine.kernels.fill(ty, W * H, 1);
  for (let i = 0; i < W * H; i++) machine.floats[plane / 4 + i] = wave(i % W);
  machine.kernels.differenceAcross(plane, W, H, tx, ty, 2, 4, out);
  const from = openCv.matFromArray(H, W, openCv.CV_32FC1, machine.floats.slice(plane / 4, plane / 4 + W * H));
  const [narrow, wide] = [new openCv.Mat(), new openCv.Mat()];
  openCv.GaussianBlur(from, narrow, new openCv.Size(0, 0), 2, 2, openCv.BORDER_REPLICATE);
  openCv.GaussianBlur(from, wide, new openCv.Size(0, 0), 3.2, 3.2, openCv.BORDER_REPLICATE);
  for (let x = 20; x < W - 20; x++) {
    const i = 60 * W + x;
    expect(Math.abs(machine.floats[out / 4 + i] - (5 * narrow.data32F[i] - 4 * wide.data32F[i]))).toBeLessThan(2 / 255);
  }
});

it('pencil is colour dodge of the blurred inverse by W3C’s formula, within a level', () => {
  const radius = 4;
  const out = run(scene, { kind: 'pencil', radius: radius / UNIT, fine: 0, along: 0, clean: 1, dark: 0, grain: 0 });
  const luma = Array.from({ length: W * H }, (_, i) => lumaOf(scene(i % W, Math.floor(i / W))));
  const inverse = openCv.matFromArray(
    H,
    W,
    openCv.CV_32FC1,
    luma.map((v) => 1 - v),
  );
  const soft = new openCv.Mat();
  openCv.GaussianBlur(inverse, soft, new openCv.Size(0, 0), radius, radius, openCv.BORDER_REPLICATE);
  // Cb = luma, Cs = the blurred inverse: min(1, Cb / (1 − Cs)) (W3C Compositing and Blending 1, color-dodge).
  inside(out, (x, y) => {
    const i = y * W + x;
    expect(Math.abs(read(out, x, y, 0) - Math.min(1, luma[i] / (1 - soft.data32F[i])))).toBeLessThan(1 / 255);
  });
});

it('two tones keep luma within a level, tint shadows and highlights, and leave nothing outside 0 to 1', () => {
  const out = run(scene, { kind: 'two-tones', shadows: 1, highlights: 1 });
  let tinted = 0;
  inside(out, (x, y) => {
    const rgb = [0, 1, 2].map((c) => read(out, x, y, c));
    const before = scene(x, y).map((v) => Math.min(1, Math.max(0, v)));
    expect(Math.abs(lumaOf(rgb) - lumaOf(before))).toBeLessThan(1 / 255);
    expect(Math.min(...rgb)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...rgb)).toBeLessThanOrEqual(1);
    tinted = Math.max(tinted, ...rgb.map((v, c) => Math.abs(v - before[c])));
  });
  expect(tinted).toBeGreaterThan(0.03);
});

describe('poster shapes', () => {
  const rgba = Uint8Array.from({ length: W * H * 4 }, (_, i) => 255 * Math.min(1, Math.max(0, scene((i >> 2) % W, Math.floor((i >> 2) / W))[i % 4])));
  it.each([2, 5, 9])('use exactly %i colours, but for borders a pixel wide', (colours) => {
    const palette = takePalette(rgba, W, H, { colours, by: 'colour', seed: 1 });
    expect(palette).toHaveLength(3 * colours);
    const survey = { slope: 0, offset: 0, width: W, height: H, low: 0, middle: 0.5, high: 1, palette };
    const out = run(scene, { kind: 'shapes', colours, island: 0, edges: 3, vivid: 0 }, () => ({ kind: 'survey', survey }));
    const counts = new Map<string, number>();
    inside(out, (x, y) => {
      const key = [0, 1, 2].map((c) => Math.round(read(out, x, y, c) * 255)).join();
      counts.set(key, (counts.get(key) ?? 0) + 1);
    });
    const most = [...counts.values()].sort((a, b) => b - a);
    const area = out.width * out.height;
    expect(most.slice(0, colours).reduce((a, b) => a + b) / area).toBeGreaterThan(0.8);
    for (let k = 0; k < colours; k++) {
      const rgb = palette.slice(3 * k, 3 * k + 3).map((v) => Math.round(v * 255));
      expect([...counts.keys()].some((key) => key.split(',').every((v, c) => Math.abs(Number(v) - rgb[c]) <= 1))).toBe(true);
    }
  });
  it('are the same for the same seed', () => {
    const order = { colours: 6, by: 'tone' as const, seed: 3 };
    expect(takePalette(rgba, W, H, order)).toEqual(takePalette(rgba, W, H, order));
  });
});

it('an outline lies outside, on or inside the edge of what a coat covers, as wide as it is said', () => {
  const disc: Values = (x, y) => [0.2, 0.4, 0.8, Math.hypot(x - 80, y - 60) < 30 ? 1 : 0];
  const widths = { outside: [30, 36], middle: [27, 33], inside: [24, 30] };
  for (const [side, [from, to]] of Object.entries(widths)) {
    const out = run(disc, { kind: 'outline', width: 6 / UNIT, side, colour: '#ff0000' });
    // Along a row from the middle outwards.
    const red = Array.from({ length: 60 }, (_, r) => (read(out, 80 + r, 60, 0) > 0.9 && read(out, 80 + r, 60, 3) > 0.5 ? r : -1)).filter(
      (r) => r >= 0,
    );
    expect(Math.abs(red[0] - from)).toBeLessThanOrEqual(1);
    expect(Math.abs(red[red.length - 1] + 1 - to)).toBeLessThanOrEqual(1);
  }
});
