import * as z from 'zod';
import { choice, share, slider } from '../schema';
import { lampFields, wayToLamp } from '../form/lamp';
import { hasMap, mapChoices, mapFields, mapInputs, mapNeeds, mapPlane, showPlane } from './map';
import { defineTreatment } from './treatment';

/** Height of white over black at full depth, in u. */
export const HIGHEST = 12;

/** Light and dark read as height and lit from one side; level ground is mid grey, so that overlay and soft light leave it alone. */
export default defineTreatment({
  kind: 'relief',
  ofSurface: true,
  isLit: true,
  label: 'Relief',
  words: 'raised emboss embossed bevel height pressed',
  shows: true,
  schema: z.object({
    kind: z.literal('relief'),
    depth: share('Depth', 0.4, { min: -1, max: 1, help: 'Negative presses in instead of raising.' }),
    ...lampFields,
    soften: slider('Soften', 0, 20, 2, { unit: 'u', step: 0.5, help: 'Rounds the surface before it is lit.' }),
    map: choice('Height from', mapChoices('height', 'own', 'picture'), 'own', { help: 'A made material has a height of its own.' }),
    ...mapFields,
    /** Shows the height instead. */
    showsMap: z.boolean().optional(),
  }),
  source: 'W3C Filter Effects, Level 1, feDiffuseLighting with a distant light',
  reach: () => 1,
  added: { map: 'height' },
  softens: (p, unit) => (p.map === 'picture' ? 0 : p.soften * unit),
  inputs: mapInputs,
  needs: mapNeeds,
  // Without depth it is flat grey, which is not the same as leaving it out.
  // Lit by its height, nothing of its look is left.
  replaces: (p) => p.map === 'height',
  neutral: (p) => !hasMap(p),
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    if (p.map === 'height') {
      const { ptr: from, stride: step } = context.read('height', tile);
      machine.bytes.copyWithin(ptr + 3 * stride, from + 3 * step, from + 3 * step + count * 4);
    }
    scratch.release(mark);
    const heights = mapPlane(context, p, tile, p.soften * unit);
    if (p.showsMap) {
      showPlane(context, tile, heights);
      return scratch.release(mark);
    }
    kernels.relief(heights, ptr, width, height, p.depth * HIGHEST * unit, ...wayToLamp(p));
    for (const c of [1, 2]) kernels.copyWindow(ptr, width, ptr + c * stride, width, width, height);
    scratch.release(mark);
  },
});
