import * as z from 'zod';
import type { InputSpec } from '../graph/node';
import { choice, slider } from '../schema';
import { softLuma } from './soften';
import { defineTreatment } from './treatment';

const NO_BOUND = 1e7;

/** Shifts the material by the light and dark of what it lies on, so that it seems to follow the form. */
export default defineTreatment({
  kind: 'drape',
  ofSurface: true,
  label: 'Follow the form',
  words: 'displace displacement wrap form fold',
  shows: true,
  schema: z.object({
    kind: z.literal('drape'),
    map: choice(
      'Displace by',
      [
        { value: 'below', label: 'Coats below' },
        { value: 'photo', label: 'The photo' },
        { value: 'own', label: 'Itself' },
      ],
      'below',
      { help: 'Its light and dark parts shift the texture.' },
    ),
    amountX: slider('Horizontal', -80, 80, 12, {
      unit: 'u',
      step: 1,
      accepts: [-400, 400],
      help: 'How far the texture is shifted.',
    }),
    amountY: slider('Vertical', -80, 80, 12, { unit: 'u', step: 1, accepts: [-400, 400] }),
    blur: slider('Soften the map', 0, 40, 3, { unit: 'u', step: 0.5, help: 'Keeps fine detail from tearing the texture.' }),
    edge: choice(
      'At the edge',
      [
        { value: 'duplicate', label: 'Extend' },
        { value: 'mirror', label: 'Mirror' },
        { value: 'wrap', label: 'Wrap' },
      ],
      'duplicate',
      { help: 'What fills the gap at the edge of the picture.' },
    ),
  }),
  source: 'W3C Filter Effects, Level 1, feDisplacementMap',
  reach: (p, unit) => Math.ceil((Math.max(Math.abs(p.amountX), Math.abs(p.amountY)) * unit) / 2) + 2,
  softens: (p, unit) => p.blur * unit,
  inputs: (p): Record<string, InputSpec> => (p.map === 'own' ? {} : { [p.map]: p.map }),
  wraps: (p) => p.edge === 'wrap',
  neutral: (p) => p.amountX === 0 && p.amountY === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit, width: w, height: h } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const map = softLuma(context, p.map, tile, p.blur * unit);
    const other = scratch.plane(count);
    // Wrapped, the source was drawn beyond the picture too: there is no bound but the tile's.
    const bounds =
      p.edge === 'wrap'
        ? { left: -NO_BOUND, top: -NO_BOUND, right: NO_BOUND, bottom: NO_BOUND }
        : { left: -tile.x, top: -tile.y, right: Math.round(w) - tile.x, bottom: Math.round(h) - tile.y };
    for (let c = 0; c < 4; c++) {
      const shift = { ax: p.amountX * unit, ay: p.amountY * unit, mirror: +(p.edge === 'mirror') };
      kernels.displace({ src: ptr + c * stride, dst: other, map, w: width, h: height, ...shift, ...bounds });
      kernels.copyWindow(other, width, ptr + c * stride, width, width, height);
    }
    scratch.release(mark);
  },
});
