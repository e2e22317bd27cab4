import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { Planes } from '../image/planes';
import { asSheet } from '../image/tile';
import { choice, colour, share, slider } from '../schema';
import { brushedSweeps, ruledLines, tornOutline } from './borders';
import { shapeFields, shapeFinishes } from './shape';
import { defineSource } from './source';

const notFor =
  (...styles: string[]) =>
  ({ style }: Record<string, unknown>) =>
    styles.includes(String(style)) ? 'It has an effect for other borders.' : undefined;

const schema = z.object({
  kind: z.literal('border'),
  style: choice(
    'Border',
    [
      { value: 'ruled', label: 'Ruled lines' },
      { value: 'brushed', label: 'Brushed' },
      { value: 'torn', label: 'Torn paper' },
    ],
    'ruled',
  ),
  colour: colour('Colour of the border', '#f4efe3'),
  inset: slider('Inset', 0, 300, 44, { unit: 'u', step: 1, accepts: [0, 900], help: 'From the edge of the picture.' }),
  width: slider('Line width', 0.5, 120, 2.6, { unit: 'u', step: 0.1, idle: notFor('brushed', 'torn') }),
  lines: slider('Lines', 1, 5, 2, { step: 1, idle: notFor('brushed', 'torn') }),
  gap: slider('Between lines', 2, 80, 12, { unit: 'u', step: 0.5, idle: notFor('brushed', 'torn') }),
  wobble: share('Wobble', 0.5, { help: 'From ruled to drawn by hand, or torn.' }),
  ...shapeFields,
  seed: z.number().int().min(0).max(1e9).default(1),
});
export type BorderParams = z.output<typeof schema>;

/** From bristle to bristle of a brushed border, in u: wide enough to be the same in a preview. */
const BRISTLE = 5;

/** What a torn photo shows along its edge: the fibres of its paper. */
const FIBRES = [0.98, 0.965, 0.935];

/** A border around the picture: lines ruled by hand, broad strokes of a brush, or paper torn off. */
export default defineSource({
  kind: 'border',
  label: 'Border',
  offers: [{ label: 'Border', says: 'Ruled, brushed or torn around the picture.', words: 'frame edge line torn deckle ruled mat passe-partout' }],
  schema,
  firstLook: { blend: 'normal', strength: 0.6 },
  guards: 0,
  finishes: shapeFinishes,
  fill({ machine, scratch, width, height, unit }, tile, p) {
    const { kernels } = machine;
    parseHex(p.colour).forEach((v, c) => kernels.fill(tile.ptr + c * tile.stride, tile.count, v));
    const alpha = tile.ptr + 3 * tile.stride;
    kernels.fill(alpha, tile.count, 0);
    const mark = scratch.mark();
    const size = { width: width / unit, height: height / unit };
    if (p.style === 'ruled') {
      const points = ruledLines(p, size);
      const table = scratch.take(points.length * 8);
      for (let i = 0; i < points.length; i += 4) {
        const [x, y, half, value] = points.slice(i, i + 4);
        machine.floats.set([x * unit - tile.x, y * unit - tile.y, half * unit, value, 0, 0, 0, 0], table / 4 + 2 * i);
      }
      kernels.drawStrokes({ dst: alpha, ...asSheet(tile), points: table, count: points.length / 4 });
    } else if (p.style === 'brushed')
      for (const s of brushedSweeps(p, size)) {
        const [cx, cy, half, wide] = [s.cx * unit - tile.x, s.cy * unit - tile.y, s.half * unit, s.wide * unit];
        const fine = { bristle: BRISTLE * unit, dry: s.dry, soft: Math.max(1, 3 * unit), seed: s.seed };
        kernels.sweep({ plane: alpha, w: tile.width, h: tile.height, cx, cy, tx: s.tx, ty: s.ty, half, wide, ...fine });
      }
    else {
      // Outside the outer outline lies what the border is made of; between the two the torn paper shows its fibres.
      const planes = new Planes(machine, scratch, tile.width, tile.height);
      const [paper, torn] = [0, 1].map((core) => {
        const plane = planes.make();
        const outline = tornOutline(p, size, core === 1).map(([x, y]) => [x * unit - tile.x, y * unit - tile.y] as const);
        planes.fill(plane, outline);
        return plane;
      });
      FIBRES.forEach((v, c) => kernels.lerpTo(tile.ptr + c * tile.stride, planes.make(v), paper, tile.count));
      kernels.mixIn(alpha, torn, tile.count, 0, -1, 1);
    }
    scratch.release(mark);
  },
});
