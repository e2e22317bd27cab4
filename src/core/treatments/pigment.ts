import * as z from 'zod';
import { blurPlane, blurReach } from '../image/blur';
import { share } from '../schema';
import { defineTreatment } from './treatment';

/** Wavelengths in u of the wash's turbulence, its speckle, and the tooth of the paper. */
const [WASH, SPECKLE, TOOTH] = [320, 28, 9];
/** Deviations in u between which a rim is darker than what it borders, and that difference in levels. */
const RIM = { fine: 1.2, wide: 5, levels: 14 };

/** What a mean over a pixel leaves of noise with cells of so many pixels. */
const faded = (cell: number): number => 1 / (1 + (0.55 / cell) ** 2);

/** Watercolour's own tones: pigment that gathers in washes, in the pits of the paper and at the rims of patches. */
export default defineTreatment({
  kind: 'pigment',
  label: 'Pigment',
  words: 'watercolour watercolor wash paint granulation paper',
  shows: true,
  schema: z.object({
    kind: z.literal('pigment'),
    thin: share('Thin the paint', 0.6, { help: 'Lightens it as water does.' }),
    wash: share('Washes', 0.5, { help: 'Large, soft differences in depth.' }),
    grain: share('Paper grain', 0.4, { help: 'Pigment gathers in the paper.' }),
    rims: share('Dark rims', 0.5, { help: 'Paint dries darker at the rims of patches.' }),
    seed: z.number().int().min(0).max(1e9).default(1),
  }),
  source: 'Bousseau, Kaplan, Thollot & Sillion 2006, interactive watercolor rendering, equation 1',
  reach: (_p, unit) => blurReach(RIM.wide * unit),
  neutral: (p) => p.thin === 0 && p.wash === 0 && p.grain === 0 && p.rims === 0,
  apply({ machine, scratch, unit }, tile, p) {
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const depth = scratch.plane(count + 8, 1);
    const noise = (size: number, key: number, gain: number) => {
      // Finer than a pixel it fades, as its mean over one does.
      const cell = Math.max(1, size * unit);
      kernels.grain({
        dst: depth,
        w: width,
        h: height,
        x: tile.x,
        y: tile.y,
        cell,
        seed: p.seed * 31 + key,
        normal: 1,
        gain: gain * faded(size * unit),
      });
    };
    if (p.wash > 0) {
      noise(WASH, 1, 0.3 * p.wash);
      noise(WASH / 3, 2, 0.16 * p.wash);
      noise(SPECKLE, 3, 0.08 * p.wash);
    }
    if (p.grain > 0) {
      noise(TOOTH, 4, 0.28 * p.grain);
      noise(TOOTH / 2, 5, 0.2 * p.grain);
    }
    if (p.rims > 0) {
      const [fine, wide] = [scratch.plane(count + 8), scratch.plane(count + 8)];
      kernels.lumaPlane(ptr, stride, fine, count);
      kernels.copyWindow(fine, width, wide, width, width, height);
      blurPlane(machine, scratch, fine, width, height, RIM.fine * unit);
      blurPlane(machine, scratch, wide, width, height, RIM.wide * unit);
      kernels.mixIn(wide, fine, count, 255 / RIM.levels, -255 / RIM.levels, 0);
      kernels.clampTo(wide, count, 0, 1);
      kernels.mixIn(depth, wide, count, 1, 1.6 * p.rims, 0);
    }
    for (let c = 0; c < 3; c++) {
      const plane = ptr + c * stride;
      if (p.thin > 0) {
        // (1 − 0.9·(1 − C))^0.70 at full.
        kernels.mixIn(plane, plane, count, 1 - 0.1 * p.thin, 0, 0.1 * p.thin);
        kernels.power(plane, count, 1 - 0.3 * p.thin);
      }
      kernels.deepened(plane, depth, count);
    }
    scratch.release(mark);
  },
});
