import sharp from 'sharp';
import { numbers } from '@/testing/machine';
import { castSentence, greyWorld, histogramOf, quantile } from './histogram';

const random = numbers(6);
const W = 200;
const H = 120;
const picture = (cast = [1, 1, 1]) =>
  Uint8Array.from({ length: W * H * 4 }, (_, i) => {
    if (i % 4 === 3) return 255;
    const v = 20 + 190 * ((Math.floor(i / 4) % W) / W) + 20 * random();
    return Math.round(Math.min(255, v * cast[i % 4]));
  });

it('counts as libvips does (sharp, per channel)', async () => {
  const rgba = picture([1, 0.8, 1.1]);
  const h = histogramOf(rgba);
  // libvips has no histogram through sharp; its means, extremes and deviations are of the same counts.
  const { channels } = await sharp(Buffer.from(rgba), { raw: { width: W, height: H, channels: 4 } }).stats();
  for (const [c, counts] of [h.red, h.green, h.blue].entries()) {
    const n = counts.reduce((s, v) => s + v, 0);
    const mean = counts.reduce((s, v, i) => s + v * i, 0) / n;
    const squares = counts.reduce((s, v, i) => s + v * i * i, 0);
    expect(n).toBe(W * H);
    expect(mean).toBeCloseTo(channels[c].mean, 6);
    expect(counts.findIndex((v) => v > 0)).toBe(channels[c].min);
    expect(255 - [...counts].reverse().findIndex((v) => v > 0)).toBe(channels[c].max);
    expect(squares).toBe(channels[c].squaresSum);
  }
});

it('finds quantiles and clipped pixels', () => {
  const rgba = Uint8Array.from([0, 10, 20, 255, 255, 30, 40, 255, 50, 60, 70, 255, 80, 90, 100, 255]);
  const h = histogramOf(rgba);
  expect([h.pixels, h.black, h.white]).toEqual([4, 1, 1]);
  expect(quantile(h.green, 0.5)).toBe(30);
  expect(quantile(h.green, 1)).toBe(90);
});

it('says a cast in a sentence, and nothing of a neutral picture', () => {
  expect(castSentence(histogramOf(picture()))).toBeNull();
  expect(castSentence(histogramOf(picture([1, 1, 1.2])))).toMatch(/^Blue sits above red and green in the (middle tones|highlights)\.$/);
  const dark = Uint8Array.from(picture(), (v, i) => (i % 4 === 2 && v < 90 ? Math.min(255, v + 25) : v));
  expect(castSentence(histogramOf(dark))).toBe('Blue sits above red and green in the shadows.');
});

it('takes a known cast out of a picture (grey world)', () => {
  const gains = greyWorld(picture([1.1, 1, 0.8]));
  expect(gains[2]).toBeGreaterThan(1.3);
  expect(gains[0]).toBeLessThan(0.95);
  greyWorld(picture()).forEach((g) => expect(Math.abs(g - 1)).toBeLessThan(0.03));
  expect(greyWorld(new Uint8Array(16).fill(255))).toEqual([1, 1, 1]);
});
