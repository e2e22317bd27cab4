import * as z from 'zod';
import type { InputSpec } from '../graph/node';
import type { DrawContext } from '../graph/context';
import type { Tile } from '../image/tile';
import { choice, share, slider, type ControlMeta } from '../schema';
import { hasMap, mapChoices, mapFields, mapInputs, mapNeeds, mapPlane, showPlane } from './map';
import { moved } from './moved';
import { defineTreatment } from './treatment';

const NO_BOUND = 1e7;

const onForm: ControlMeta['absent'] = ({ map }) => map === 'form';
const offForm: ControlMeta['absent'] = ({ map }) => map !== 'form';

const schema = z.object({
  kind: z.literal('drape'),
  map: choice(
    'Displace by',
    [...mapChoices('below', 'photo', 'own'), { value: 'form', label: 'The face’s form' }, ...mapChoices('picture')],
    'below',
    {
      help: 'Light and dark, or the form of the face, shift the texture.',
    },
  ),
  form: share('Wrap around', 0.8, { absent: offForm, help: 'Draws the texture together where the cheek turns away.' }),
  amountX: slider('Horizontal', -80, 80, 12, {
    unit: 'u',
    step: 1,
    accepts: [-400, 400],
    absent: onForm,
    help: 'How far the texture is shifted.',
  }),
  amountY: slider('Vertical', -80, 80, 12, { unit: 'u', step: 1, accepts: [-400, 400], absent: onForm }),
  blur: slider('Soften the map', 0, 40, 3, { unit: 'u', step: 0.5, absent: onForm, help: 'Keeps fine detail from tearing the texture.' }),
  level: share('Stays in place', 0.5, { absent: onForm, help: 'Areas of this brightness do not move.' }),
  ...mapFields,
  channel: mapFields.channel,
  edge: choice(
    'At the edge',
    [
      { value: 'duplicate', label: 'Extend' },
      { value: 'mirror', label: 'Mirror' },
      { value: 'wrap', label: 'Wrap' },
    ],
    'duplicate',
    { absent: onForm, help: 'What fills the gap at the edge of the picture.' },
  ),
  /** Shows the map instead. */
  showsMap: z.boolean().optional(),
});
type Params = z.output<typeof schema>;

/** The greatest shift to either side, in parts of the amount. */
const most = ({ level }: Params) => Math.max(level, 1 - level);

/** Shifts the material by the light and dark of what it lies on, or by the form of a face, so that it seems to follow what is beneath. */
export default defineTreatment({
  kind: 'drape',
  ofSurface: true,
  label: 'Follow the form',
  words: 'displace displacement wrap form fold',
  shows: true,
  schema,
  source: 'W3C Filter Effects, Level 1, feDisplacementMap',
  reach: (p, unit) => (p.map === 'form' ? 1 : Math.ceil(Math.max(Math.abs(p.amountX), Math.abs(p.amountY)) * unit * most(p)) + 2),
  softens: (p, unit) => (p.map === 'form' || p.map === 'picture' ? 0 : p.blur * unit),
  inputs: (p): Record<string, InputSpec> => mapInputs(p),
  needs: mapNeeds,
  wraps: (p) => p.map !== 'form' && p.edge === 'wrap',
  neutral: (p) => !p.showsMap && (p.map === 'form' ? p.form === 0 : !hasMap(p) || (p.amountX === 0 && p.amountY === 0)),
  moves: (p) => p.map === 'form' && !p.showsMap,
  move: (context, region, p, own) => moved(context, region, own, (into) => formOffsets(context, into, p.form)),
  apply(context, tile, p) {
    if (p.map === 'form') return showForm(context, tile, p);
    const { machine, scratch, unit, width: w, height: h } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const map = mapPlane(context, p, tile, p.blur * unit);
    if (p.showsMap) showPlane(context, tile, map);
    else {
      // The kernel lets mid grey stay.
      if (p.level !== 0.5) kernels.mixIn(map, map, count, 1, 0, 0.5 - p.level);
      // Wrapped, the source was drawn beyond the picture too: there is no bound but the tile's.
      const bounds =
        p.edge === 'wrap'
          ? { left: -NO_BOUND, top: -NO_BOUND, right: NO_BOUND, bottom: NO_BOUND }
          : { left: -tile.x, top: -tile.y, right: Math.round(w) - tile.x, bottom: Math.round(h) - tile.y };
      const shift = { ax: p.amountX * unit, ay: p.amountY * unit, mirror: +(p.edge === 'mirror') };
      const woven = scratch.take(count * 16 + 64);
      kernels.interleave(ptr, stride, count, woven, 4);
      kernels.displace({ src: woven, dst: ptr, stride, map, w: width, h: height, ...shift, ...bounds });
    }
    scratch.release(mark);
  },
});

/** Offsets by the form of the faces, in two planes over a region. */
function formOffsets(context: DrawContext, { x, y, width, height, dx, dy, count }: Tile & { dx: number; dy: number }, amount: number): void {
  const { machine, scratch } = context;
  const mark = scratch.mark();
  const form = context.read('form', { x, y, width, height });
  for (const [from, into] of [
    [form.ptr, dx],
    [form.ptr + form.stride, dy],
  ]) {
    machine.kernels.copyWindow(from, width, into, width, width, height);
    machine.kernels.mixIn(into, into, count, amount, 0, 0);
  }
  scratch.release(mark);
}

/** The offsets as colours: red for those across, green for those down; mid grey does not move. */
function showForm(context: DrawContext, tile: Tile, p: Params): void {
  const { machine, scratch, unit } = context;
  const mark = scratch.mark();
  const form = context.read('form', tile);
  const gain = p.form / (120 * unit);
  machine.kernels.mixIn(tile.ptr, form.ptr, tile.count, 0, gain, 0.5);
  machine.kernels.mixIn(tile.ptr + tile.stride, form.ptr + form.stride, tile.count, 0, gain, 0.5);
  machine.kernels.fill(tile.ptr + 2 * tile.stride, tile.count, 0.5);
  machine.kernels.fill(tile.ptr + 3 * tile.stride, tile.count, 1);
  scratch.release(mark);
}
