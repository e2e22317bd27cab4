import * as z from 'zod';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';

export const fringeFields = {
  amount: share('Fringes', 0, { help: 'Removes coloured seams along hard edges.' }),
  hue: slider('Fringe hue', 0, 360, 285, { unit: '°', step: 1, help: 'The colour of the seam: mostly violet or green.' }),
  reach: slider('Reach', 1, 12, 4, { unit: 'u', step: 0.5, help: 'How wide the seam is.' }),
};

/** The colour of a hue at full chroma. */
function colourOf(hue: number): [number, number, number] {
  const a = Math.cos((hue * Math.PI) / 180);
  const o = Math.sin((hue * Math.PI) / 180);
  return [(2 / 3) * a, -a / 3 + o / Math.sqrt(3), -a / 3 - o / Math.sqrt(3)];
}

/** Colour fringes by hue: at uneven places, what stands out from the colour around it towards one hue is drawn back to it. */
export default defineTreatment({
  kind: 'fringe',
  label: 'Colour fringes',
  schema: z.object({ kind: z.literal('fringe'), ...fringeFields }),
  source: 'common practice, no source',
  reach: (p, unit) => p.reach * unit + 2,
  neutral: (p) => p.amount === 0,
  apply({ machine, scratch, unit }, tile, p) {
    const { kernels } = machine;
    const radius = Math.max(1, p.reach * unit);
    const mark = scratch.mark();
    const [luma, blue, red, meanBlue, meanRed, spread, middle] = Array.from({ length: 7 }, () => scratch.plane(tile.count + 8));
    const line = scratch.take((tile.width + 2 * Math.ceil(radius) + 16) * 4);
    const box = (from: number, to: number) => kernels.boxMean(from, to, tile.width, tile.height, radius, middle, line);
    kernels.splitLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    box(blue, meanBlue);
    box(red, meanRed);
    // Variance of luma around each pixel: the mean of its squares less the square of its mean.
    const square = scratch.plane(tile.count + 8);
    kernels.multiplied(luma, luma, square, tile.count);
    box(square, spread);
    box(luma, square);
    kernels.multiplied(square, square, square, tile.count);
    kernels.mixIn(spread, square, tile.count, 1, -1, 0);
    const [r, g, b] = colourOf(p.hue);
    const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    const size = Math.hypot(b - y, r - y);
    kernels.drawFringe({
      blue,
      red,
      mb: meanBlue,
      mr: meanRed,
      spread,
      count: tile.count,
      cos: (b - y) / size,
      sin: (r - y) / size,
      amount: p.amount,
    });
    kernels.joinLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    scratch.release(mark);
  },
});
