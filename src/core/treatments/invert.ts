import * as z from 'zod';
import { defineCurves } from './treatment';

/** White becomes black, every colour its opposite. */
export default defineCurves({
  kind: 'invert',
  label: 'Invert',
  shows: true,
  schema: z.object({ kind: z.literal('invert') }),
  source: 'W3C Filter Effects, Level 1, invert(1)',
  neutral: () => false,
  curves: () => (v: number) => 1 - v,
});
