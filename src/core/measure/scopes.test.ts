import sharp from 'sharp';
import { numbers } from '@/testing/machine';
import { smoothCurve } from '../treatments/curves';
import { histogramOf } from './histogram';
import { castCurve, stretchCurves } from './mend';
import { paradeLines, paradeOf } from './parade';
import { hueWheel } from './wheel';

const [W, H] = [128, 90];
const next = numbers(9);
const pixels = Uint8Array.from({ length: W * H * 4 }, (_, i) => {
  const x = (i >> 2) % W;
  return i % 4 === 3 ? 255 : Math.min(255, Math.max(0, Math.round([x * 1.5, 90 + 60 * Math.sin(x / 20), 200 - x][i % 4] + (next() - 0.5) * 40)));
});
const picture = () => sharp(Buffer.from(pixels), { raw: { width: W, height: H, channels: 4 } });

describe('the parade', () => {
  const parade = paradeOf(pixels, W, H, 16);
  it('counts what libvips counts, level by level in every column', async () => {
    for (const column of [0, 5, 15]) {
      const part = await picture()
        .extract({ left: column * 8, top: 0, width: 8, height: H })
        .removeAlpha()
        .raw()
        .toBuffer();
      for (const level of [40, 90, 140, 190]) {
        const raw = { width: 8, height: H, channels: 3 } as const;
        const over = await sharp(part, { raw }).threshold(level, { grayscale: false }).raw().toBuffer();
        const { channels } = await sharp(over, { raw }).stats();
        for (const c of [0, 1, 2] as const) {
          const counts = parade.counts[c].subarray(column * 256, column * 256 + 256);
          const ours = counts.subarray(level).reduce((s, v) => s + v, 0);
          expect(ours).toBe(Math.round((channels[c].mean / 255) * 8 * H));
        }
      }
    }
  });
  it('gives lines of equal shares that rise with the share, and nothing for empty columns', () => {
    const [low, middle, high] = paradeLines(parade, 0, [0.02, 0.5, 0.98]);
    for (let c = 0; c < 16; c++) {
      expect(low[c]!).toBeLessThanOrEqual(middle[c]!);
      expect(middle[c]!).toBeLessThanOrEqual(high[c]!);
      expect(Math.abs(middle[c]! - (c * 8 + 3.5) * 1.5)).toBeLessThan(8);
    }
    expect(paradeLines(paradeOf(new Uint8Array(0), 0, 0, 4), 1, [0.5])[0]).toEqual([null, null, null, null]);
  });
});

describe('the hue wheel', () => {
  const flat = (...colours: number[][]) => Uint8Array.from(colours.flatMap(([r, g, b]) => [r, g, b, 255]));
  it('puts pure colours where the hue circle has them', () => {
    for (const [colour, sector] of [
      [[255, 0, 0], 0],
      [[255, 255, 0], 6],
      [[0, 255, 0], 12],
      [[0, 0, 255], 24],
    ] as [number[], number][]) {
      const { share, reach, mean } = hueWheel(flat(colour));
      expect(share[sector]).toBe(1);
      expect(reach[sector]).toBe(1);
      expect(Math.hypot(...mean)).toBeCloseTo(1, 5);
    }
  });
  it('leaves greys out and finds the middle of a balanced picture', () => {
    const { share, mean } = hueWheel(flat([255, 0, 0], [0, 255, 0], [0, 0, 255], [90, 90, 90]));
    expect(share.reduce((s, v) => s + v, 0)).toBeCloseTo(0.75, 6);
    expect(Math.hypot(...mean)).toBeLessThan(1e-6);
  });
});

describe('mending by curves', () => {
  const cast = (f: (v: number) => number[]) => {
    const random = numbers(4);
    return new Uint8Array(40000).map((_, i, all) => {
      if (i % 4 === 3) return 255;
      // One grey a pixel, so that all channels have the same share everywhere.
      if (i % 4 === 0)
        all.set(
          f(random()).map((x) => Math.round(Math.min(1, Math.max(0, x)) * 255)),
          i,
        );
      return all[i];
    });
  };
  const through = (px: Uint8Array, curves: Partial<Record<'red' | 'green' | 'blue', [number, number][]>>) => {
    const f = (['red', 'green', 'blue'] as const).map((c) => (curves[c] ? smoothCurve(curves[c]) : (v: number) => v));
    return px.map((v, i) => (i % 4 === 3 ? 255 : Math.round(f[i % 4](v / 255) * 255)));
  };
  it('takes a known blue cast in the shadows out, and says nothing about a picture without one', () => {
    const blueish = cast((g) => [g, g, g + 0.12 * (1 - g)]);
    const mend = castCurve(histogramOf(blueish))!;
    expect(mend.channel).toBe('blue');
    const mended = histogramOf(through(blueish, { [mend.channel]: mend.points }));
    expect(castCurve(mended)).toBeNull();
    expect(castCurve(histogramOf(cast((g) => [g, g, g])))).toBeNull();
  });
  it('stretches every channel to the whole range and with it a known cast away', () => {
    const faded = cast((g) => [0.15 + 0.6 * g, 0.1 + 0.7 * g, 0.25 + 0.5 * g]);
    const curves = stretchCurves(histogramOf(faded));
    expect(curves.red[0][0]).toBeCloseTo(0.15, 2);
    expect(curves.blue[1][0]).toBeCloseTo(0.75, 2);
    const out = through(faded, curves);
    let apart = 0;
    for (let i = 0; i < out.length; i += 4) apart = Math.max(apart, Math.abs(out[i] - out[i + 1]), Math.abs(out[i + 2] - out[i + 1]));
    expect(apart).toBeLessThan(5);
    expect(stretchCurves(histogramOf(cast(() => [0.5, 0.5, 0.5]))).red).toEqual([
      [0, 0],
      [1, 1],
    ]);
  });
});
