import * as z from 'zod';
import { blurPlane, blurReach } from '../../image/blur';
import { grow, padded } from '../../image/tile';
import { layGrowing, layStrokes } from '../../strokes/lay';
import { strokeToken } from '../../strokes/token';
import { movedStroke, strokeSchema, type Stroke } from '../../strokes/schema';
import { featherSigma } from '../feather';
import { activeField, definePart, densityField, partFields } from '../part';

export const strokesSchema = z.object({
  kind: z.literal('strokes'),
  active: activeField,
  density: densityField,
  feather: partFields.feather,
  strokes: z.array(strokeSchema).max(5000).default([]),
});
export type Strokes = z.output<typeof strokesSchema>;

/** Strokes in the order they were made; each bounded by its strength, so that only a second one builds up. */
export default definePart({
  kind: 'strokes',
  label: 'Brush strokes',
  schema: strokesSchema,
  steps(part) {
    const { strokes, ...rest } = part;
    // The strokes themselves are needs: long ones are not posted to the workers.
    const step = (some: Stroke[], grows?: string) => ({
      params: { ...rest, strokes: [] },
      inputs: {},
      needs: { strokes: { need: 'strokes' as const, strokes: some } },
      grows,
    });
    const last = strokes.at(-1);
    // The first dab of a tip that follows the stroke is turned towards the second point.
    if (!last || last.ring || last.points.length < 2 || part.density < 1 || part.feather > 0) return [step(strokes)];
    const growing = step([last], strokeToken(last));
    return strokes.length === 1 ? [growing] : [step(strokes.slice(0, -1)), growing];
  },
  draw(context, mask, region, { density, feather }) {
    const { strokes, tips } = context.needed('strokes', 'strokes');
    if (context.grown) return layGrowing(context, mask, region, strokes[0], tips, context.grown);
    if (density >= 1 && feather === 0) return layStrokes(context, mask, region, strokes, tips);
    // All strokes together are one line, mask' = kept · mask + put, whose two planes can be softened and eased.
    const { machine, scratch, unit } = context;
    const sigma = featherSigma(feather, unit);
    const rim = blurReach(sigma);
    const wide = grow(region, rim);
    const count = padded(region.width, region.height);
    const mark = scratch.mark();
    const soft = (value: number, towards?: number) => {
      const out = scratch.plane(count + 8);
      const before = scratch.mark();
      const plane = scratch.plane(padded(wide.width, wide.height) + 8, value);
      layStrokes(context, plane, wide, strokes, tips, towards);
      blurPlane(machine, scratch, plane, wide.width, wide.height, sigma);
      machine.kernels.copyWindow(plane + (rim * wide.width + rim) * 4, wide.width, out, region.width, region.width, region.height);
      scratch.release(before);
      return out;
    };
    const [kept, put] = [soft(1, 0), soft(0)];
    machine.kernels.mixIn(kept, kept, count, density, 0, 1 - density);
    machine.kernels.times(mask, kept, count, 1, 0);
    machine.kernels.mixIn(mask, put, count, 1, density, 0);
    scratch.release(mark);
  },
  moved: (part, motion) => ({
    ...part,
    strokes: part.strokes.map((stroke) => movedStroke(stroke, motion)),
  }),
});
