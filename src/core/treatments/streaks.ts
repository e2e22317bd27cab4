import * as z from 'zod';
import { choice, share, slider } from '../schema';
import { defineTreatment } from './treatment';

/** Streaks across the picture: scratches of a worn film, strokes of a dry brush, rain. */
export default defineTreatment({
  kind: 'streaks',
  label: 'Streaks',
  words: 'scratches film worn rain lines old',
  shows: true,
  schema: z.object({
    kind: z.literal('streaks'),
    tone: choice(
      'Streaks are',
      [
        { value: 'light', label: 'Light' },
        { value: 'dark', label: 'Dark' },
      ],
      'light',
    ),
    amount: share('Amount', 0.4),
    density: share('Density', 0.15, { help: 'How many there are.' }),
    length: slider('Length', 20, 2000, 700, { unit: 'u', step: 10 }),
    width: slider('Width', 0.5, 20, 2, { unit: 'u', step: 0.5 }),
    angle: slider('Angle', 0, 180, 90, { unit: '°', step: 1, dial: true, help: 'At 90° they run from top to bottom.' }),
    seed: z.number().int().min(0).max(1e9).default(1),
  }),
  source: 'common practice, no source',
  reach: () => 0,
  neutral: (p) => p.amount === 0 || p.density === 0,
  apply({ machine, scratch, unit }, tile, { tone, amount, density, length, width, angle, seed }) {
    const { kernels } = machine;
    const { ptr, stride, count } = tile;
    const mark = scratch.mark();
    const lines = scratch.plane(count + 8, 0);
    const turn = (angle * Math.PI) / 180;
    // Narrower than a pixel they fade, as their mean over one does.
    const wide = Math.max(1, width * unit);
    kernels.streaks({
      dst: lines,
      w: tile.width,
      h: tile.height,
      x: tile.x,
      y: tile.y,
      tx: Math.cos(turn),
      ty: Math.sin(turn),
      length: length * unit,
      width: wide * LANE,
      density: density * 0.5,
      seed,
    });
    kernels.mixIn(lines, lines, count, amount * Math.min(1, width * unit), 0, 0);
    kernels.clampTo(lines, count, 0, 1);
    for (let c = 0; c < 3; c++) {
      const plane = ptr + c * stride;
      if (tone === 'dark') kernels.times(plane, lines, count, -1, 1);
      else {
        kernels.mixIn(plane, plane, count, -1, 0, 1);
        kernels.times(plane, lines, count, -1, 1);
        kernels.mixIn(plane, plane, count, -1, 0, 1);
      }
    }
    scratch.release(mark);
  },
});

/** A streak fills about this part of the lane that it runs in. */
const LANE = 1.6;
