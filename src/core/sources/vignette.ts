import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { choice, colour, share, slider } from '../schema';
import { defineSource } from './source';

export const vignetteSourceSchema = z.object({
  kind: z.literal('vignette'),
  does: choice(
    'Corners',
    [
      { value: 'darken', label: 'Darken' },
      { value: 'lighten', label: 'Lighten' },
    ],
    'darken',
  ),
  amount: share('Amount', 0.65, { help: 'How much light the corners lose or gain.' }),
  size: slider('Size', 0.3, 1.6, 1, { unit: '%', factor: 100, step: 0.01, help: 'Smaller reaches further into the picture.' }),
  roundness: share('Roundness', 0, { help: 'From an ellipse like the picture to a circle.' }),
  feather: share('Feather', 0.7, { help: 'At 100 % nobody sees where it begins.' }),
  cx: slider('Centre across', 0, 1, 0.5, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  cy: slider('Centre down', 0, 1, 0.48, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  tint: colour('Colour of the darkness', '#0c0806'),
});
type Params = z.output<typeof vignetteSourceSchema>;

/** Exponent of the distance: 1 at full feather, steep at none. */
const powerOf = (feather: number) => 1 + 7 * (1 - feather) ** 1.5;
/** The light that is left at the corner is this part of all at full amount. */
const DARKEST = 0.06;

/** How far the distance 1 of a vignette lies from its middle, across and down: at the corners of a picture of that size, or on a circle through them. */
export function vignetteAxes(width: number, height: number, roundness: number): [number, number] {
  const mixed = (axis: number) => axis ** (1 - roundness) * (Math.hypot(width, height) / 2) ** roundness;
  return [mixed(width / Math.SQRT2), mixed(height / Math.SQRT2)];
}

/** Light that falls off towards the corners as it does behind a lens, 1 / (1 + q²)² in linear light: nobody sees where it begins. */
export default defineSource({
  kind: 'vignette',
  label: 'Vignette',
  offers: [
    { label: 'Vignette', says: 'Darkens the edges and draws the eye inwards.', words: 'dark corners edges burn old light falloff', isComplete: true },
  ],
  schema: vignetteSourceSchema,
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
  moved(p, motion) {
    const [cx, cy] = motion.point([p.cx, p.cy]);
    return { ...p, cx, cy };
  },
  fill({ machine, width, height }, tile, p: Params) {
    const { kernels } = machine;
    const { ptr, stride, count } = tile;
    const rgb = p.does === 'darken' ? parseHex(p.tint) : [1, 1, 1];
    for (let c = 0; c < 3; c++) kernels.fill(ptr + c * stride, count, rgb[c]);
    const [ax, ay] = vignetteAxes(width, height, p.roundness);
    const left = 1 - p.amount * (1 - DARKEST);
    const t = Math.sqrt(1 / Math.sqrt(left) - 1);
    kernels.vignette({
      dst: ptr + 3 * stride,
      w: tile.width,
      h: tile.height,
      cx: p.cx * width - tile.x,
      cy: p.cy * height - tile.y,
      ax,
      ay,
      size: p.size,
      t,
      power: powerOf(p.feather),
    });
  },
});
