import * as z from 'zod';
import type { Need } from '../graph/needs';
import { CELL, planeOfNudge } from '../nudge/field';
import { movedNudge, nudgeStrokeSchema } from '../nudge/schema';
import { share } from '../schema';
import { moved } from './moved';
import { defineTreatment } from './treatment';

const schema = z.object({
  kind: z.literal('nudge'),
  amount: share('Amount', 1, { help: 'How much of the nudging shows.' }),
  strokes: z.array(nudgeStrokeSchema).max(2000).default([]),
});

/** Moves a texture by hand: pushed along a cheek, swollen, pinched, turned, eased back. Places are read elsewhere, so that nothing tears. */
export default defineTreatment({
  kind: 'nudge',
  ofSurface: true,
  label: 'Nudge by hand',
  words: 'push warp smear swell pinch twirl freeze deform mesh',
  shows: false,
  schema,
  source: 'Smooth maps one after another; each has a derivative under 1, so that their sum cannot fold',
  reach: (p) => (p.strokes.length > 0 ? 1 : 0),
  needs: (p): Record<string, Need> => (p.strokes.length > 0 ? { field: { need: 'nudge', strokes: p.strokes } } : {}),
  neutral: (p) => p.strokes.length === 0 || p.amount === 0,
  moves: () => true,
  move(context, region, p, own) {
    const { machine, unit } = context;
    return moved(context, region, own, ({ x, y, width, height, dx, dy }) => {
      const { at, columns, rows } = context.needed('field', 'nudge');
      // Values lie at the upper left corner of the photo, a cell apart.
      const step = 1 / (CELL * unit);
      machine.kernels.addOffsets({
        field: at,
        columns,
        rows,
        second: at + planeOfNudge({ columns, rows }),
        dx,
        dy,
        w: width,
        h: height,
        ox: (x + 0.5) * step,
        oy: (y + 0.5) * step,
        step,
        gain: p.amount * unit,
      });
    });
  },
  apply() {
    throw new Error('A nudge is drawn by moving.');
  },
  moved: (p, motion) => ({ ...p, strokes: p.strokes.map((stroke) => movedNudge(stroke, motion)) }),
});
