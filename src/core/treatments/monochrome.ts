import * as z from 'zod';
import { share, toggle } from '../schema';
import { defineTreatment } from './treatment';

export const monochromeFields = {
  on: toggle('Black and white', false),
  red: share('Red', 0.2126, { min: -1, max: 2, help: 'Lightens or darkens red things.' }),
  green: share('Green', 0.7152, { min: -1, max: 2, help: 'Lightens or darkens leaves and grass.' }),
  blue: share('Blue', 0.0722, { min: -1, max: 2, help: 'Lightens or darkens the sky.' }),
};

/** Black and white as a mix of the channels, weighed so that white stays white; Rec. 709 luma to begin with. */
export default defineTreatment({
  kind: 'monochrome',
  label: 'Black and white',
  words: 'grey gray desaturate bw',
  added: { on: true },
  schema: z.object({ kind: z.literal('monochrome'), ...monochromeFields }),
  source: 'ITU-R BT.709 luma as the neutral mix; channel mixing is common practice, no source',
  reach: () => 0,
  neutral: (p) => !p.on,
  apply({ machine }, tile, p) {
    const sum = p.red + p.green + p.blue;
    // A mix that adds up to nothing has no white to keep.
    const k = Math.abs(sum) < 0.05 ? 1 : 1 / sum;
    const [r, g, b] = [p.red * k, p.green * k, p.blue * k];
    machine.kernels.colorMatrix({ tile: tile.ptr, stride: tile.stride, count: tile.count, m: [r, g, b, 0, r, g, b, 0, r, g, b, 0] });
  },
});
