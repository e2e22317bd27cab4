import * as z from 'zod';
import { share, slider } from '../../schema';
import { definePart, partFields } from '../part';

const place = (label: string, neutral: number) => slider(label, -0.5, 1.5, neutral, { accepts: [-1e3, 1e3], unit: '%', factor: 100, step: 0.01 });

export const gradientPartSchema = z.object({
  kind: z.literal('gradient'),
  op: partFields.op,
  active: partFields.active,
  x0: place('Start X', 0.5),
  y0: place('Start Y', 0.35),
  x1: place('End X', 0.5),
  y1: place('End Y', 0.75),
  most: share('Most', 1, { help: 'The strongest value of the gradient.' }),
  density: partFields.density,
  feather: partFields.feather,
  invert: partFields.invert,
});
export type GradientPart = z.output<typeof gradientPartSchema>;

/** 0 at the first point and before it, rising by smoothstep to `most` at the second and beyond; points in fractions of the photo. */
export default definePart({
  kind: 'gradient',
  label: 'Straight gradient',
  schema: gradientPartSchema,
  cover({ machine, width, height }, plane, region, p) {
    machine.kernels.maskRamp(
      plane,
      region.width,
      region.height,
      p.x0 * width - region.x,
      p.y0 * height - region.y,
      p.x1 * width - region.x,
      p.y1 * height - region.y,
      p.most,
    );
  },
  moved(p, motion) {
    const [x0, y0] = motion.point([p.x0, p.y0]);
    const [x1, y1] = motion.point([p.x1, p.y1]);
    return { ...p, x0, y0, x1, y1 };
  },
});
