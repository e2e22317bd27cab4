import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { colour, share } from '../schema';
import { defineTreatment } from './treatment';

const SIZE = 1024;
const made = new WeakMap<object, Float32Array>();

const schema = z.object({
  kind: z.literal('remap'),
  dark: colour('Shadows', '#000000'),
  middle: colour('Midtones', '#808080'),
  light: colour('Highlights', '#ffffff'),
  midpoint: share('Midpoint', 0.5, {
    min: 0.02,
    max: 0.98,
    help: 'Lower keeps only the darkest parts dark.',
  }),
  darkBend: share('Between dark and middle', 0.5, { min: 0.1, max: 0.9, help: 'Moves the halfway colour.' }),
  lightBend: share('Between middle and light', 0.5, { min: 0.1, max: 0.9, help: 'Moves the halfway colour.' }),
});
type Remap = z.output<typeof schema>;

/** Share of the next colour at t on the way to it, half way at `bend`: a power through ½. */
const bent = (t: number, bend: number) => t ** (Math.log(0.5) / Math.log(bend));

/** The colour that a luma of 0..1 becomes. */
export function remapped(p: Omit<Remap, 'kind'>, luma: number): [number, number, number] {
  const low = luma < p.midpoint;
  const [from, to] = low ? [parseHex(p.dark), parseHex(p.middle)] : [parseHex(p.middle), parseHex(p.light)];
  const t = low ? bent(luma / p.midpoint, p.darkBend) : bent((luma - p.midpoint) / (1 - p.midpoint), p.lightBend);
  return from.map((v, c) => v + (to[c] - v) * t) as [number, number, number];
}

/** The same gradient from its other end. */
export const swappedEnds = (p: Record<string, unknown>) => ({
  dark: p.light,
  light: p.dark,
  midpoint: 1 - (p.midpoint as number),
  darkBend: 1 - (p.lightBend as number),
  lightBend: 1 - (p.darkBend as number),
});

/** Light and dark as colours of a gradient from black over a colour to white. */
export default defineTreatment({
  kind: 'remap',
  label: 'Gradient map',
  words: 'duotone two tones cracks only sepia',
  shows: true,
  schema,
  source: 'gradient over Rec. 709 luma, common practice, no source',
  reach: () => 0,
  neutral: () => false,
  apply({ machine, scratch }, tile, p) {
    let tables = made.get(p);
    if (!tables) {
      tables = new Float32Array(3 * SIZE);
      for (let i = 0; i < SIZE; i++) remapped(p, i / (SIZE - 1)).forEach((v, c) => (tables![c * SIZE + i] = v));
      made.set(p, tables);
    }
    const mark = scratch.mark();
    const at = scratch.take(tables.length * 4);
    machine.floats.set(tables, at / 4);
    machine.kernels.remap(tile.ptr, tile.stride, tile.count, at, SIZE);
    scratch.release(mark);
  },
});
