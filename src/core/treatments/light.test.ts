import { contextOn } from '@/testing/draw';
import { numbers, testBench } from '@/testing/machine';
import { openCv as cv } from '@/testing/opencv';
import { surveyBytes, surveyScratch, takeSurvey, type Survey, type SurveyOrder } from '../measure/survey';
import type { Picture } from '../image/picture';
import { samplePhoto } from '../image/sample';
import { treatmentByKind, treatments } from '.';
import { evenCurve } from './even';
import { baseCurve, localToneStarts } from './local-tone';
import { levelsCurve } from './levels';

const bench = testBench(192);
const { machine, scratch } = bench;
const target = bench.take(surveyBytes(320, 320));
const work = bench.take(320 * 320 * 4 + surveyScratch(320, 320));
const luma = ([r, g, b]: number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** A survey as the engine takes it, on the picture at its own size. */
function survey(photo: Picture, order: { radius: number; eps: number }): Survey {
  const { width, height } = photo;
  return takeSurvey(machine, photo.levels[0], width, height, Math.max(width, height) / 2000, order, target, work);
}

/** A picture through a treatment, at full size; values 0..1. */
function treat(photo: Picture, kind: string, values: object): (x: number, y: number) => number[] {
  scratch.reset();
  const { width, height } = photo;
  const tile = scratch.tile({ x: 0, y: 0, width, height });
  samplePhoto(machine, photo, 1, tile);
  const treatment = treatmentByKind(kind);
  const params = treatment.schema.parse({ kind, ...values });
  const order = treatment.needs?.(params).survey as SurveyOrder | undefined;
  const taken = order && survey(photo, order);
  treatment.apply(contextOn(bench, photo, 1, undefined, { needed: () => ({ kind: 'survey', survey: taken }) as never }), tile, params);
  return (x, y) => [0, 1, 2].map((c) => machine.floats[(tile.ptr + c * tile.stride) / 4 + y * width + x]);
}

const spread = (values: number[]) => {
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return { mean, deviation: Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length) };
};
const [W, H] = [320, 200];
const next = numbers(5);
const gauss = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());

describe('the box mean', () => {
  it.each([1, 4, 9])('of radius %d is OpenCV’s box filter', (radius) => {
    scratch.reset();
    const values = Float32Array.from({ length: W * H }, () => next());
    const [from, to, middle] = [0, 1, 2].map(() => scratch.plane(W * H + 8));
    const line = scratch.take((W + 64) * 4);
    machine.floats.set(values, from / 4);
    machine.kernels.boxMean(from, to, W, H, radius, middle, line);
    const out = new cv.Mat();
    const side = 2 * radius + 1;
    cv.boxFilter(cv.matFromArray(H, W, cv.CV_32FC1, values), out, -1, new cv.Size(side, side), new cv.Point(-1, -1), true, cv.BORDER_REPLICATE);
    let most = 0;
    for (let i = 0; i < W * H; i++) most = Math.max(most, Math.abs(machine.floats[to / 4 + i] - out.data32F[i]));
    expect(most).toBeLessThan(1e-4);
  });
  it('of a radius between two is between them', () => {
    scratch.reset();
    const [from, to, middle] = [0, 1, 2].map(() => scratch.plane(W * H + 8, 0));
    const line = scratch.take((W + 64) * 4);
    machine.floats[from / 4 + 100 * W + 100] = 1;
    machine.kernels.boxMean(from, to, W, H, 1.25, middle, line);
    const at = (x: number, y: number) => machine.floats[to / 4 + y * W + x];
    expect(at(100, 100)).toBeCloseTo(1 / 3.5 ** 2, 6);
    expect(at(102, 100)).toBeCloseTo(0.25 / 3.5 ** 2, 6);
    expect(at(102, 102)).toBeCloseTo(0.0625 / 3.5 ** 2, 6);
    expect(at(103, 100)).toBeCloseTo(0, 6);
  });
});

describe('noise reduction', () => {
  const sigma = 0.05;
  // A long side of 2000 u is what the picture has, so that a radius of 1.3 u is 1.3 pixels.
  const [w, h] = [2000, 60];
  const step = (x: number) => (x < 1000 ? 0.35 : 0.65);
  const grey = Array.from({ length: w * h }, (_, i) => step(i % w) + sigma * gauss());
  const coloured = Array.from({ length: w * h }, () => [sigma * gauss(), sigma * gauss(), sigma * gauss()]);
  const byte = (v: number) => Math.max(0, Math.min(255, Math.round(v * 255)));
  const places = (at: (x: number, y: number) => number) => {
    const flat: number[] = [];
    for (let y = 8; y < h - 8; y++) for (let x = 200; x < 800; x += 3) flat.push(at(x, y));
    const near: number[] = [];
    for (let y = 8; y < h - 8; y++) near.push(at(1002, y) - at(997, y));
    return { ...spread(flat), edge: spread(near).mean };
  };
  it('calms grain about as far as OpenCV’s bilateral filter and keeps an edge', () => {
    const photo = bench.picture(w, h, (x, y) => Array(3).fill(byte(grey[y * w + x])));
    const out = treat(photo, 'noise', { luma: 1 });
    const ours = places((x, y) => luma(out(x, y)));
    const reference = new cv.Mat();
    cv.bilateralFilter(cv.matFromArray(h, w, cv.CV_8UC1, grey.map(byte)), reference, 5, 0.15 * 255, 1.5, cv.BORDER_REPLICATE);
    const theirs = places((x, y) => reference.data[y * w + x] / 255);
    expect(ours.mean).toBeCloseTo(0.35, 2);
    expect(ours.deviation).toBeLessThan(0.6 * sigma);
    expect(ours.deviation / theirs.deviation).toBeGreaterThan(0.5);
    expect(ours.deviation / theirs.deviation).toBeLessThan(1.6);
    expect(Math.abs(ours.edge - 0.3)).toBeLessThan(0.03);
    expect(Math.abs(theirs.edge - 0.3)).toBeLessThan(0.03);
    const half = treat(photo, 'noise', { luma: 0.4 });
    const less = places((x, y) => luma(half(x, y)));
    expect(less.deviation).toBeGreaterThan(ours.deviation * 1.1);
    expect(less.deviation).toBeLessThan(sigma * 0.98);
  });
  it('calms colour apart from light', () => {
    const photo = bench.picture(w, h, (x, y) => coloured[y * w + x].map((v) => byte(0.5 + v)));
    const out = treat(photo, 'noise', { colour: 1 });
    const colour = (at: (x: number, y: number) => number[]) => places((x, y) => at(x, y)[0] - luma(at(x, y))).deviation;
    const light = (at: (x: number, y: number) => number[]) => places((x, y) => luma(at(x, y))).deviation;
    const before = (x: number, y: number) => coloured[y * w + x].map((v) => 0.5 + v);
    expect(colour(out)).toBeLessThan(0.3 * colour(before));
    expect(light(out)).toBeGreaterThan(0.95 * light(before));
  });
});

describe('local contrast', () => {
  // Fine waves on both sides of a strong edge.
  const wave = (x: number) => 0.03 * Math.sin(x * 0.5);
  const photo = bench.picture(W, H, (x) => Array(3).fill(Math.round(255 * ((x < 160 ? 0.25 : 0.75) + wave(x)))));
  const swing = (at: (x: number, y: number) => number[], from: number, to: number) => {
    const row = Array.from({ length: to - from }, (_, i) => luma(at(from + i, 100)));
    return Math.max(...row) - Math.min(...row);
  };
  it('lifts detail and leaves no halo beside an edge, where a plain unsharp mask of the same reach leaves one', () => {
    const out = treat(photo, 'local-contrast', { amount: 0.6, reach: 40 });
    expect(swing(out, 30, 100)).toBeGreaterThan(1.6 * 0.06);
    // Nearer to the edge than the reach (6.4 pixels): beyond the waves nothing swings out.
    const beside = Math.max(...Array.from({ length: 12 }, (_, i) => luma(out(161 + i, 100))));
    expect(beside).toBeLessThan(0.75 + 0.03 * 2.2 + 0.02);
    const values = Float32Array.from({ length: W * H }, (_, i) => machine.bytes[photo.levels[0] + i * 4] / 255);
    const mean = new cv.Mat();
    cv.boxFilter(cv.matFromArray(H, W, cv.CV_32FC1, values), mean, -1, new cv.Size(13, 13), new cv.Point(-1, -1), true, cv.BORDER_REPLICATE);
    const mask = (i: number) => values[i] + 0.9 * (values[i] - mean.data32F[i]);
    expect(Math.max(...Array.from({ length: 12 }, (_, i) => mask(100 * W + 161 + i)))).toBeGreaterThan(beside + 0.02);
  });
  it('is He, Sun & Tang’s guided filter, built here from OpenCV’s box filter', () => {
    const order = { radius: 40, eps: 0.01 };
    const s = survey(photo, order);
    const values = Float32Array.from({ length: W * H }, (_, i) => machine.bytes[photo.levels[0] + i * 4] / 255);
    // 6.4 pixels lie between 6 and 7: the reference is taken at a whole radius.
    const whole = takeSurvey(machine, photo.levels[0], W, H, 0.15, order, target, work);
    expect([s.width, s.height]).toEqual([W, H]);
    const box = (v: ArrayLike<number>) => {
      const out = new cv.Mat();
      cv.boxFilter(cv.matFromArray(H, W, cv.CV_32FC1, v), out, -1, new cv.Size(13, 13), new cv.Point(-1, -1), true, cv.BORDER_REPLICATE);
      return Float32Array.from(out.data32F);
    };
    const [mean, square] = [box(values), box(values.map((v) => v * v))];
    const a = mean.map((m, i) => (square[i] - m * m) / (square[i] - m * m + order.eps));
    const [slope, offset] = [box(a), box(mean.map((m, i) => m - a[i] * m))];
    let most = 0;
    for (let i = 0; i < W * H; i++) {
      most = Math.max(most, Math.abs(machine.floats[whole.slope / 4 + i] - slope[i]), Math.abs(machine.floats[whole.offset / 4 + i] - offset[i]));
    }
    expect(most).toBeLessThan(0.003);
  });
  it('softens below 0 and does nothing at 0', () => {
    expect(swing(treat(photo, 'local-contrast', { amount: -0.8 }), 30, 100)).toBeLessThan(0.03);
    expect(treatmentByKind('local-contrast').neutral(treatmentByKind('local-contrast').schema.parse({ kind: 'local-contrast' }))).toBe(true);
  });
});

describe('even out and local tone', () => {
  const dim = bench.picture(W, H, (x, y) => (x < 200 ? [30 + (y % 7), 26, 20] : [190, 200, 215]));
  it('one slider opens the dark side, keeps white and black apart and the hue', () => {
    const out = treat(dim, 'even', { amount: 1 });
    const [dark, light] = [out(60, 100), out(260, 100)];
    expect(luma(dark)).toBeGreaterThan(0.17);
    expect(dark[0]).toBeGreaterThan(dark[1]);
    expect(dark[1]).toBeGreaterThan(dark[2]);
    expect(luma(light)).toBeGreaterThan(luma(dark) + 0.3);
    expect(luma(light)).toBeLessThanOrEqual(1);
  });
  it('curves rise everywhere, whatever the picture', () => {
    const curves = [
      ...[0, 0.5, 1].flatMap((amount) => [0.05, 0.4, 0.9].map((middle) => evenCurve(amount, { low: 0.01, middle, high: Math.max(0.5, middle) }))),
      ...localToneStarts.map((s) => baseCurve(s.values)),
    ];
    for (const curve of curves) for (let v = 0.01; v < 1; v += 0.01) expect(curve(v)).toBeGreaterThanOrEqual(curve(v - 0.01) - 1e-9);
  });
  it('strong tone mapping brings places together and keeps their detail', () => {
    const out = treat(dim, 'local-tone', { flatten: 0.8, detail: 0.5 });
    expect(luma(out(260, 100)) - luma(out(60, 100))).toBeLessThan(0.35);
    expect(localToneStarts.map((s) => s.name)).toHaveLength(4);
  });
  it('refuses to work without a survey', () => {
    scratch.reset();
    const tile = scratch.tile({ x: 0, y: 0, width: 8, height: 8 });
    const params = treatmentByKind('even').schema.parse({ kind: 'even', amount: 1 });
    expect(() => treatmentByKind('even').apply(contextOn(bench, dim), tile, params)).toThrow('survey');
  });
});

describe('levels, ranges, one colour, fringes', () => {
  const colours = [0.1, 0.35, 0.6, 0.85].flatMap((r) => [0.15, 0.5, 0.9].flatMap((g) => [0.2, 0.55, 0.8].map((b) => [r, g, b])));
  const row = bench.picture(colours.length, 4, (x) => colours[x].map((v) => Math.round(v * 255)));
  const was = (x: number) => colours[x].map((v) => Math.round(v * 255) / 255);

  it('levels: black, middle, white and both ends', () => {
    const curve = levelsCurve({ black: 0.1, middle: 2, white: 0.9, floor: 0.05, ceiling: 0.95 });
    expect(curve(0.05)).toBeCloseTo(0.05, 9);
    expect(curve(0.5)).toBeCloseTo(0.05 + 0.9 * Math.SQRT1_2, 9);
    expect(curve(0.95)).toBeCloseTo(0.95, 9);
    const out = treat(row, 'levels', { black: 0.1, white: 0.9 });
    colours.forEach((_, x) => was(x).forEach((v, c) => expect(out(x, 1)[c]).toBeCloseTo(Math.min(1, Math.max(0, (v - 0.1) / 0.8)), 2)));
  });
  it('colour by tone moves its own range and keeps luma', () => {
    const greys = bench.picture(256, 4, (x) => [x, x, x]);
    const out = treat(greys, 'ranges', { shadowBlue: 0.5, highlightRed: 0.4 });
    for (const x of [40, 128, 215]) expect(luma(out(x, 1))).toBeCloseTo(x / 255, 3);
    expect(out(40, 1)[2] - out(40, 1)[0]).toBeGreaterThan(0.1);
    expect(out(215, 1)[0] - out(215, 1)[2]).toBeGreaterThan(0.07);
    expect(Math.abs(out(128, 1)[2] - out(128, 1)[1])).toBeLessThan(0.02);
  });
  it('one colour: turned by the angle asked for, luma kept, others left alone', () => {
    const picture = bench.picture(
      3,
      4,
      (x) =>
        [
          [200, 90, 60],
          [60, 120, 200],
          [128, 128, 128],
        ][x],
    );
    const out = treat(picture, 'hues', { hue: 13, width: 60, turn: 30, saturation: 0 });
    const hue = ([r, g, b]: number[]) => (Math.atan2((Math.sqrt(3) / 2) * (g - b), r - (g + b) / 2) * 180) / Math.PI;
    const before = [200, 90, 60].map((v) => v / 255);
    expect(hue(out(0, 1)) - hue(before)).toBeCloseTo(30, 0);
    expect(luma(out(0, 1))).toBeCloseTo(luma(before), 2);
    out(1, 1).forEach((v, c) => expect(v).toBeCloseTo([60, 120, 200][c] / 255, 3));
    out(2, 1).forEach((v) => expect(v).toBeCloseTo(128 / 255, 3));
    const grey = treat(picture, 'hues', { hue: 13, width: 60, saturation: -1 });
    expect(Math.max(...grey(0, 1)) - Math.min(...grey(0, 1))).toBeLessThan(0.01);
  });
  it('fringes: a violet seam on a hard edge goes, a violet flower stays', () => {
    const picture = bench.picture(W, H, (x, y) => {
      if (y > 100) return x > 100 && x < 220 ? [130, 60, 180] : [140, 140, 140];
      return x < 158 ? [20, 20, 22] : x < 161 ? [150, 90, 210] : [235, 235, 238];
    });
    const out = treat(picture, 'fringe', { amount: 1, hue: 270, reach: 12 });
    const colour = ([r, , b]: number[]) => Math.hypot(b - luma([r, r, b]), r - b);
    expect(colour(out(159, 50))).toBeLessThan(0.65 * colour([150, 90, 210].map((v) => v / 255)));
    out(160, 160).forEach((v, c) => expect(v).toBeCloseTo([130, 60, 180][c] / 255, 2));
  });
  it('all treatments have a name and a source, and begin neutral or say that they do not', () => {
    for (const t of treatments) {
      expect(t.label.length).toBeGreaterThan(2);
      expect(t.source.length).toBeGreaterThan(10);
      expect(t.neutral(t.schema.parse({ kind: t.kind }))).toBe(!t.shows);
    }
  });
});
