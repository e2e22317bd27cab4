import * as z from 'zod';
import { share } from '../../schema';
import { definePart, operationFieldOf, partFields } from '../part';

export const contourSchema = z.object({
  kind: z.literal('contour'),
  ...partFields,
  op: operationFieldOf('intersect'),
  amount: share('Fade', 0.5, { help: 'How early the texture fades as the form turns away.' }),
});

/** Where the subject is turned towards the viewer: it runs out where a cheek turns away to jaw and ear, and along the subject's edge. */
export default definePart({
  kind: 'contour',
  label: 'Contour fade',
  words: 'form edge turning away roundness falloff',
  schema: contourSchema,
  inputs: () => ({ facing: { framed: { need: 'contour' } } }),
  cover(context, plane, region, { amount }) {
    const { kernels } = context.machine;
    const found = context.read('facing', region);
    kernels.copyWindow(found.ptr, region.width, plane, region.width, region.width, region.height);
    kernels.smoothstep(plane, found.count, 0.1 + 0.2 * amount, 0.45 + 0.3 * amount);
  },
});
