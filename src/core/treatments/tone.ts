import * as z from 'zod';
import { hueRotation, saturation as saturate, type Matrix } from '../color/matrix';
import { share, slider, toggle } from '../schema';
import { defineTreatment } from './treatment';

const bare = (values: Record<string, unknown>) => (values.materialIsGrey ? 'No effect: this material has no colour.' : undefined);
const grey = (values: Record<string, unknown>) =>
  (values.saturation as number) <= -1 ? 'No effect: the material has no colour left (saturation −100 %).' : bare(values);

const schema = z.object({
  kind: z.literal('tone'),
  brightness: share('Brightness', 0, { min: -1, max: 1, help: 'Lightens or darkens the material, not the photo.' }),
  contrast: share('Contrast', 0, { min: -1, max: 1, help: 'More contrast shows more grain.' }),
  saturation: share('Saturation', 0, { min: -1, max: 1, help: 'Lower it over a black and white photo.', idle: bare }),
  hue: slider('Hue', -180, 180, 0, { unit: '°', step: 1, help: 'Shifts every colour of the material.', idle: grey }),
  invert: toggle('Invert', false, { help: 'Swaps light and dark: white scratches become black ones.' }),
});

/** brightness(1 + b), contrast(1 + b), saturate(1 + b), hue-rotate, invert, in that order and each clamped. */
export default defineTreatment({
  kind: 'tone',
  label: 'Tone',
  words: 'brightness contrast saturation hue',
  schema,
  source: 'W3C Filter Effects, Level 1, shorthand filter functions and feColorMatrix',
  reach: () => 0,
  neutral: (p) => p.brightness === 0 && p.contrast === 0 && p.saturation === 0 && p.hue === 0 && !p.invert,
  apply({ machine }, tile, p) {
    const run = (m: Matrix) => machine.kernels.colorMatrix({ tile: tile.ptr, stride: tile.stride, count: tile.count, m });
    const gain = (k: number, offset: number) => run([k, 0, 0, offset, 0, k, 0, offset, 0, 0, k, offset]);
    if (p.brightness !== 0) gain(1 + p.brightness, 0);
    if (p.contrast !== 0) gain(1 + p.contrast, 0.5 - 0.5 * (1 + p.contrast));
    if (p.saturation !== 0) run(saturate(1 + p.saturation));
    if (p.hue !== 0) run(hueRotation(p.hue));
    if (p.invert) gain(-1, 1);
  },
});
