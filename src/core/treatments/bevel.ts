import * as z from 'zod';
import { Planes } from '../image/planes';
import { blurReach } from '../image/blur';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';
import { layUnder } from './under';

/** Height of a fully covered place over a bare one at full amount, in u. */
const HIGHEST = 10;
/** The light of what stands up is this much stronger than that of a relief laid in overlay. */
const CONTRAST = 0.9;
/** A Gaussian of this part of the size rounds the edge. */
const ROUND = 0.4;

const schema = z.object({
  kind: z.literal('bevel'),
  amount: share('Height', 0.5, { min: -1, max: 1, help: 'Negative presses in instead of raising.' }),
  direction: slider('Light from', 0, 360, 315, { unit: '°', step: 1, dial: true, help: 'Where the light comes from, clockwise from the top.' }),
  size: slider('Width of the edge', 1, 30, 5, { unit: 'u', step: 0.5, help: 'How wide the edge slopes.' }),
  shadow: share('Shadow', 0.5, { help: 'What is raised throws it on what lies beneath.' }),
});
type Params = z.output<typeof schema>;

/** How far a raised edge throws its shadow, in u. */
const shadowOf = (p: Params) => (p.amount > 0 ? 0.9 * p.size : 0);

/** What a coat covers read as height, its edges lit from one side: paint that stands up, or a shape pressed in. */
export default defineTreatment({
  kind: 'bevel',
  label: 'Raised edges',
  words: 'bevel emboss raised pressed thick paint height letterpress',
  ofSurface: true,
  isLit: true,
  shows: true,
  schema,
  source: 'W3C Filter Effects, Level 1, feDiffuseLighting of the alpha channel with a distant light',
  reach: (p, unit) => Math.ceil((shadowOf(p) + 1) * unit) + blurReach(ROUND * p.size * unit) + 2,
  neutral: (p) => p.amount === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const alpha = ptr + 3 * stride;
    const mark = scratch.mark();
    const planes = new Planes(machine, scratch, width, height);
    const shape = planes.copy(alpha);
    planes.blur(shape, ROUND * p.size * unit);
    const lit = planes.make();
    const [from, up] = [(p.direction * Math.PI) / 180, (45 * Math.PI) / 180];
    const [dx, dy] = [Math.sin(from), -Math.cos(from)];
    kernels.relief(shape, lit, width, height, p.amount * HIGHEST * unit * (p.size / 5), dx * Math.cos(up), dy * Math.cos(up), Math.sin(up));
    for (let c = 0; c < 3; c++) {
      kernels.mixIn(ptr + c * stride, lit, count, 1, CONTRAST, -CONTRAST / 2);
      kernels.clampTo(ptr + c * stride, count, 0, 1);
    }
    if (p.amount > 0 && p.shadow > 0) {
      const [sx, sy] = [Math.round(-dx * shadowOf(p) * unit), Math.round(-dy * shadowOf(p) * unit)];
      const shade = planes.make(0);
      const [x, y] = [Math.max(0, sx), Math.max(0, sy)];
      kernels.copyWindow(
        shape + (Math.max(0, -sy) * width + Math.max(0, -sx)) * 4,
        width,
        shade + (y * width + x) * 4,
        width,
        width - Math.abs(sx),
        height - Math.abs(sy),
      );
      kernels.mixIn(shade, shade, count, 0.8 * p.shadow * Math.sqrt(p.amount), 0, 0);
      layUnder(context, tile, shade, [0, 0, 0]);
    }
    scratch.release(mark);
  },
});
