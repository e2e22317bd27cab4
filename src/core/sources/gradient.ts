import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { choice, colour, share, toggle } from '../schema';
import { defineSource } from './source';

const SIZE = 1024;

const stopSchema = z.object({ at: z.number().min(0).max(1), colour: colour('Colour', '#000000'), alpha: z.number().min(0).max(1).default(1) });
export type Stop = z.output<typeof stopSchema>;

export const gradientSourceSchema = z.object({
  kind: z.literal('gradient'),
  shape: choice(
    'Shape',
    [
      { value: 'linear', label: 'Straight' },
      { value: 'radial', label: 'Round' },
    ],
    'linear',
  ),
  // From here the first stop, to there the last, in fractions of the photo; a round one starts at its centre.
  x1: share('Start X', 0.5, { min: -0.5, max: 1.5, accepts: [-10, 11] }),
  y1: share('Start Y', 0, { min: -0.5, max: 1.5, accepts: [-10, 11] }),
  x2: share('End X', 0.5, { min: -0.5, max: 1.5, accepts: [-10, 11] }),
  y2: share('End Y', 1, { min: -0.5, max: 1.5, accepts: [-10, 11] }),
  straight: toggle('Hold straight', false, { help: 'Dragged on the picture, it stays level or upright.' }),
  stops: z
    .array(stopSchema)
    .min(2)
    .max(16)
    .refine((stops) => stops.every((s, i) => i === 0 || s.at >= stops[i - 1].at), 'stops of a gradient must rise')
    .default([
      { at: 0, colour: '#33475c', alpha: 1 },
      { at: 1, colour: '#d9a066', alpha: 1 },
    ]),
});

/** Encoded red, green, blue and alpha at t = 0..1; two stops at one place make a hard edge. */
export function stopColour(stops: readonly Stop[], t: number): number[] {
  const next = stops.findIndex((s) => s.at > t);
  const [a, b] = next < 0 ? [stops[stops.length - 1], stops[stops.length - 1]] : [stops[Math.max(0, next - 1)], stops[next]];
  const part = b.at > a.at ? Math.max(0, (t - a.at) / (b.at - a.at)) : 0;
  const [from, to] = [a, b].map((s) => [...parseHex(s.colour), s.alpha]);
  return from.map((v, c) => v + (to[c] - v) * part);
}

const made = new WeakMap<object, Float32Array>();

export default defineSource({
  kind: 'gradient',
  label: 'Gradient',
  offers: [{ label: 'Gradient', says: 'From one colour to another, straight or round.', words: 'fade light sky' }],
  schema: gradientSourceSchema,
  firstLook: { blend: 'soft-light', strength: 0.6 },
  guards: 0,
  moved(p, motion) {
    const [x1, y1] = motion.point([p.x1, p.y1]);
    const [x2, y2] = motion.point([p.x2, p.y2]);
    return { ...p, x1, y1, x2, y2 };
  },
  fill({ machine, scratch, width, height }, tile, { shape, x1, y1, x2, y2, stops }) {
    let tables = made.get(stops);
    if (!tables) {
      tables = new Float32Array(4 * SIZE);
      for (let i = 0; i < SIZE; i++) stopColour(stops, i / (SIZE - 1)).forEach((v, c) => (tables![c * SIZE + i] = v));
      made.set(stops, tables);
    }
    const mark = scratch.mark();
    const at = scratch.take(tables.length * 4);
    machine.floats.set(tables, at / 4);
    machine.kernels.gradient({
      tile: tile.ptr,
      stride: tile.stride,
      w: tile.width,
      h: tile.height,
      x0: x1 * width - tile.x,
      y0: y1 * height - tile.y,
      dx: (x2 - x1) * width,
      dy: (y2 - y1) * height,
      round: +(shape === 'radial'),
      tables: at,
      size: SIZE,
    });
    scratch.release(mark);
  },
});
