import { converter } from 'culori';
import { testBench } from '@/testing/machine';

const { machine, scratch } = testBench(64);
const toLinear = converter('lrgb');
const toEncoded = converter('rgb');

/** Values through a gain in linear light, by the kernel. */
function lit(values: number[], gain: number): number[] {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: values.length, height: 1 });
  for (let c = 0; c < 3; c++) machine.floats.set(values, (tile.ptr + c * tile.stride) / 4);
  machine.kernels.linearMatrix({ tile: tile.ptr, stride: tile.stride, count: tile.count, m: [gain, 0, 0, 0, gain, 0, 0, 0, gain] });
  return values.map((_, i) => machine.floats[tile.ptr / 4 + i]);
}
const levels = Array.from({ length: 1024 }, (_, i) => i / 1023);

describe('the fitted sRGB transfer functions', () => {
  it('lead there and back within a twentieth of a level', () => {
    lit(levels, 1).forEach((v, i) => expect(Math.abs(v - levels[i]) * 255).toBeLessThan(0.05));
  });
  it.each([0.25, 0.5, 2, 3.7])('under a gain of %d are culori’s within a fifteenth of a level', (gain) => {
    lit(levels, gain).forEach((v, i) => {
      const { r } = toLinear({ mode: 'rgb', r: levels[i], g: 0, b: 0 });
      const want = toEncoded({ mode: 'lrgb', r: Math.min(1, r * gain), g: 0, b: 0 }).r;
      expect(Math.abs(v - want) * 255).toBeLessThan(1 / 15);
    });
  });
});

describe('light in the corners', () => {
  it('is a gain in linear light, as culori has it, on dark and light alike', () => {
    const width = 64;
    for (const [f1, f2] of [
      [0.5, 0.4],
      [-0.4, -0.2],
    ]) {
      for (const level of [0.01, 0.03, 0.1, 0.4, 0.8]) {
        scratch.reset();
        const tile = scratch.tile({ x: 0, y: 0, width, height: 1 });
        for (let c = 0; c < 4; c++) machine.kernels.fill(tile.ptr + c * tile.stride, tile.count, level);
        const m = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;
        machine.kernels.cornerLight({
          tile: tile.ptr,
          stride: tile.stride,
          tw: width,
          th: 1,
          m,
          cx: 0,
          cy: 0.5,
          radius: width,
          zoom: 1,
          k1: 0,
          k2: 0,
          f1,
          f2,
        });
        const { r } = toLinear({ mode: 'rgb', r: level, g: 0, b: 0 });
        for (let i = 0; i < width; i += 7) {
          const s = ((i + 0.5) / width) ** 2;
          const want = toEncoded({ mode: 'lrgb', r: Math.min(1, r * (1 + s * (f1 + s * f2))), g: 0, b: 0 }).r;
          // The two parts of the transfer function meet a little later than in one step.
          expect(Math.abs(machine.floats[tile.ptr / 4 + i] - want) * 255).toBeLessThan(0.6);
        }
      }
    }
  });
});
