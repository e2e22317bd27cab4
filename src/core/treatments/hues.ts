import * as z from 'zod';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';

export const hueFields = {
  hue: slider('Hue', 0, 360, 30, { unit: '°', step: 1, help: 'The colours it works on: 0 red, 60 yellow, 120 green, 240 blue.' }),
  width: slider('Width', 10, 180, 40, { unit: '°', step: 1, help: 'How many neighbouring colours change too.' }),
  turn: slider('Turn to', -90, 90, 0, { unit: '°', step: 1, help: 'Shifts these colours to a new hue.' }),
  saturation: share('Saturation', 0, { min: -1, max: 1 }),
  lightness: share('Lightness', 0, { min: -1, max: 1 }),
};
export type HueRange = Omit<z.output<typeof hueSchema>, 'kind'>;
const hueSchema = z.object({ kind: z.literal('hues'), ...hueFields });

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Hue of a colour in degrees, and its chroma 0..1 (Preucil 1953, as the kernel has it). */
export function hueOf([r, g, b]: [number, number, number]): { hue: number; chroma: number } {
  const a = r - (g + b) / 2;
  const o = (Math.sqrt(3) / 2) * (g - b);
  return { hue: ((Math.atan2(o, a) * 180) / Math.PI + 360) % 360, chroma: Math.hypot(a, o) };
}

/** Hue, saturation and lightness of the colours around one hue. */
export default defineTreatment({
  kind: 'hues',
  label: 'One colour',
  schema: hueSchema,
  source: 'hue and chroma by Preucil 1953; ranges are common practice, no source',
  reach: () => 0,
  neutral: (p) => p.turn === 0 && p.saturation === 0 && p.lightness === 0,
  apply({ machine }, tile, p) {
    const [cos, sin] = [Math.cos(radians(p.hue)), Math.sin(radians(p.hue))];
    const inner = Math.cos(radians(p.width / 2));
    // A whole circle has no far side to fade to.
    const outer = Math.min(inner - 0.01, Math.cos(radians(Math.min(180, p.width))));
    machine.kernels.hueRange({
      tile: tile.ptr,
      stride: tile.stride,
      count: tile.count,
      cos,
      sin,
      inner,
      outer,
      turnCos: Math.cos(radians(p.turn)),
      turnSin: Math.sin(radians(p.turn)),
      saturation: p.saturation,
      lightness: p.lightness,
    });
  },
});
