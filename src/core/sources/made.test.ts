import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema } from '../piece/schema';
import { sourceByKind } from '.';
import { stopColour } from './gradient';

const bench = testBench(64);
const { machine, scratch } = bench;
const photo = bench.picture(2000, 16, () => [128, 128, 128]);

function filled(source: object, region: { x: number; y: number; width: number; height: number }, scale = 1) {
  const coat = coatSchema.parse({ id: 'a', source });
  const tile = scratch.tile(region);
  const below = scratch.tile(region);
  for (let c = 0; c < 4; c++) machine.kernels.fill(below.ptr + c * below.stride, below.count, 0.5);
  const context = { ...contextOn(bench, photo, scale, undefined, { read: () => below }), lay: coat.lay };
  sourceByKind(coat.source.kind as string).fill?.(context, tile, coat.source);
  return (x: number, y: number, c: number) => machine.floats[(tile.ptr + c * tile.stride) / 4 + (y - region.y) * region.width + x - region.x];
}
beforeEach(() => scratch.reset());

describe('a gradient', () => {
  const stops = [
    { at: 0, colour: '#ff0000', alpha: 1 },
    { at: 0.5, colour: '#00ff00', alpha: 0.5 },
    { at: 1, colour: '#0000ff', alpha: 1 },
  ];
  it('runs along its line from stop to stop, and stays beyond its ends', () => {
    const at = filled({ kind: 'gradient', x1: 0.25, y1: 0, x2: 0.75, y2: 0, stops }, { x: 0, y: 0, width: 2000, height: 2 });
    for (const [x, want] of [
      [100, [1, 0, 0, 1]],
      [750, [0.5, 0.5, 0, 0.75]],
      [1000, [0, 1, 0, 0.5]],
      [1250, [0, 0.5, 0.5, 0.75]],
      [1900, [0, 0, 1, 1]],
    ] as [number, number[]][])
      want.forEach((v, c) => expect(at(x, 1, c)).toBeCloseTo(v, 2));
  });
  it('is round about its first point', () => {
    const at = filled({ kind: 'gradient', shape: 'radial', x1: 0.5, y1: 0.5, x2: 0.75, y2: 0.5, stops }, { x: 0, y: 0, width: 2000, height: 16 });
    for (const d of [100, 250, 400]) expect(at(1000 + d, 8, 1)).toBeCloseTo(at(999 - d, 7, 1), 4);
    expect(at(1250, 8, 1)).toBeCloseTo(1, 2);
  });
  it('has a hard edge where two stops share a place', () => {
    const hard = [stops[0], { ...stops[0], at: 0.5 }, { ...stops[2], at: 0.5 }, stops[2]];
    expect(stopColour(hard, 0.499)).toEqual([1, 0, 0, 1]);
    expect(stopColour(hard, 0.501)).toEqual([0, 0, 1, 1]);
  });
});

describe('grain', () => {
  const region = { x: 700, y: 0, width: 256, height: 16 };
  const stats = (at: ReturnType<typeof filled>, c = 0) => {
    const all = Array.from({ length: region.width * region.height }, (_, i) => at(region.x + (i % region.width), Math.floor(i / region.width), c));
    const mean = all.reduce((a, b) => a + b) / all.length;
    const variance = all.reduce((a, b) => a + (b - mean) ** 2, 0) / all.length;
    return { mean, deviation: Math.sqrt(variance), kurtosis: all.reduce((a, b) => a + (b - mean) ** 4, 0) / all.length / variance ** 2 };
  };
  it.each([0.5, 1, 4])('stands on mid grey with the strength asked for, at scale %d', (scale) => {
    const at = filled({ kind: 'grain', amount: 0.3, size: 1, clumping: 0 }, region, scale);
    const { mean, deviation } = stats(at);
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.02);
    expect(Math.abs(deviation - 0.1)).toBeLessThan(0.015);
  });
  it('is the same whichever tile it is drawn in', () => {
    const wide = filled({ kind: 'grain', colour: 1 }, region);
    const part = filled({ kind: 'grain', colour: 1 }, { x: 800, y: 3, width: 40, height: 9 });
    for (let x = 800; x < 840; x++) for (let c = 0; c < 3; c++) expect(part(x, 7, c)).toBeCloseTo(wide(x, 7, c), 5);
  });
  it('is one for all channels, or one for each', () => {
    const grey = filled({ kind: 'grain' }, region);
    expect(grey(750, 5, 0)).toBe(grey(750, 5, 2));
    const coloured = filled({ kind: 'grain', colour: 1 }, region);
    expect(Math.abs(coloured(750, 5, 0) - coloured(750, 5, 2))).toBeGreaterThan(1e-4);
  });
  it('is flatter when uniform than when Gaussian', () => {
    const flat = stats(filled({ kind: 'grain', spread: 'uniform', clumping: 0, size: 1 }, region)).kurtosis;
    const bell = stats(filled({ kind: 'grain', spread: 'gaussian', clumping: 0, size: 1 }, region)).kurtosis;
    // 1.8 and close to 3 (four uniform values added: 2.7).
    expect(flat).toBeLessThan(2);
    expect(bell).toBeGreaterThan(2.4);
  });
  it('is weaker in the darks when asked to follow the tones', () => {
    const of = (even: boolean) => stats(filled({ kind: 'grain', even, amount: 0.3 }, region)).deviation;
    expect(of(false)).toBeCloseTo(of(true), 2);
  });
});
