import * as z from 'zod';
import { Planes } from '../image/planes';
import { choice, share, slider } from '../schema';
import { lampFields, wayToLamp } from '../form/lamp';
import { hasMap, mapChoices, mapFields, mapInputs, mapNeeds, mapPlane, showPlane } from './map';
import { HIGHEST } from './relief';
import { defineTreatment } from './treatment';

/** Exponents of the gloss: from a dull surface to a polished one. */
const DULL = 6;
const POLISHED = 60;

const schema = z.object({
  kind: z.literal('light'),
  map: choice('Height from', mapChoices('own', 'below', 'photo', 'height', 'picture'), 'own', {
    help: 'Light areas stand up, dark areas lie deep.',
  }),
  ...mapFields,
  amount: share('Amount', 0.6, { max: 2, help: 'How much lighter and darker the slopes become.' }),
  depth: share('Raised', 0.4, { min: -1, max: 1, help: 'Negative presses in instead of raising.' }),
  ...lampFields,
  gloss: share('Gloss', 0, { help: 'Bright glints where the surface mirrors the light.' }),
  polish: share('Polish', 0.3, { absent: ({ gloss }) => gloss === 0, help: 'Small, hard glints instead of wide, soft ones.' }),
  soften: slider('Soften', 0, 40, 2, { unit: 'u', step: 0.5, help: 'Rounds the surface before it is lit.' }),
  /** Shows the height instead. */
  showsMap: z.boolean().optional(),
});

/** Lights a surface from one side. Its height is read from the coat itself, the coats below, a material or a picture. Flat areas do not change. */
export default defineTreatment({
  kind: 'light',
  ofSurface: true,
  isLit: true,
  label: 'Light',
  words: 'lighting lamp directional emboss raised pressed shine specular gloss bump',
  shows: true,
  schema,
  source: 'W3C Filter Effects, Level 1, feDiffuseLighting and feSpecularLighting with a distant light',
  reach: () => 1,
  softens: (p, unit) => (p.map === 'picture' ? 0 : p.soften * unit),
  inputs: mapInputs,
  needs: mapNeeds,
  neutral: (p) => !p.showsMap && (!hasMap(p) || p.depth === 0 || (p.amount === 0 && p.gloss === 0)),
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const heights = mapPlane(context, p, tile, p.soften * unit);
    if (p.showsMap) {
      showPlane(context, tile, heights);
      return scratch.release(mark);
    }
    const planes = new Planes(machine, scratch, width, height);
    const lit = planes.make();
    const scale = p.depth * HIGHEST * unit;
    const [lx, ly, lz] = wayToLamp(p);
    kernels.relief(heights, lit, width, height, scale, lx, ly, lz);
    // Level ground is one half: times 1 + amount · (2 · lit − 1).
    for (let c = 0; c < 3; c++) kernels.times(ptr + c * stride, lit, count, 2 * p.amount, 1 - p.amount);
    if (p.gloss > 0) {
      const length = Math.hypot(lx, ly, lz + 1);
      kernels.gloss({
        height: heights,
        dst: lit,
        w: width,
        h: height,
        scale,
        hx: lx / length,
        hy: ly / length,
        hz: (lz + 1) / length,
        exponent: DULL + (POLISHED - DULL) * p.polish,
      });
      for (let c = 0; c < 3; c++) kernels.mixIn(ptr + c * stride, lit, count, 1, p.gloss, 0);
    }
    for (let c = 0; c < 3; c++) kernels.clampTo(ptr + c * stride, count, 0, 1);
    scratch.release(mark);
  },
});
